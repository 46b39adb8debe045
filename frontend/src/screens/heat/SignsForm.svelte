<!-- How hot it is now: measured, or by what a drop, fat or a hand says; and how long to wait. -->
<script lang="ts">
  import { api, type Formula } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import { refusalOf } from "../../lib/refusal";
  import type { HeatBench } from "./heat.svelte";

  let { bench, formula, inside }: { bench: Bench; formula: Formula; inside: HeatBench } = $props();
  let seen = $state.raw<string[]>([]);
  let guess = $state.raw<{ low_c: number; usual_c: number; high_c: number } | null>(null);
  let problem = $state<string | null>(null);
  let typed = $state("");
  let heated = $state("5:00");
  const signs = $derived(inside.ways?.signs ?? []);
  const iron = $derived(signs.some((s) => s.kind === "drop"));
  const cool = $derived(inside.curve?.remarks.find((r) => r.key === "plate-cool"));

  async function attempt(run: () => Promise<void>): Promise<void> {
    problem = null;
    problem = (await refusalOf(run)) ?? problem;
    if (problem) {
      guess = null;
    }
  }
  function toggle(key: string): void {
    seen = seen.includes(key) ? seen.filter((k) => k !== key) : [...seen, key];
    guess = null;
    const asked = seen;
    if (asked.length)
      void attempt(async () => {
        const found = await api.heatSigns(asked, formula.heat.fat ?? "");
        // Only what is ticked now counts.
        if (asked === seen) guess = found;
      });
  }
  // The simulated one is held on the metal; what it shows is typed in as any reading is.
  const simulate = () =>
    attempt(async () => {
      const seconds = (await api.read("time_s", heated, units.system)).value;
      const { shown_c } = await api.readSurface(formula, seconds, 7);
      typed = amount({ kind: "temp_c", value: Math.round(shown_c) }, units);
      inside.surfaceNow = shown_c;
    });
  const measured = () =>
    attempt(async () => {
      inside.surfaceNow = typed ? (await api.read("temp_c", typed, units.system)).value : null;
    });
</script>

<section aria-label="How hot it is now">
  <h2 class="text-base">How hot it is now</h2>
  <div class="mt-1 flex flex-wrap items-end gap-3">
    <TextField
      label="It measures"
      width="7rem"
      placeholder={amount({ kind: "temp_c", value: 180 }, units)}
      value={typed}
      oninput={(t) => (typed = t)}
    />
    <button class="act" onclick={measured}>{typed ? "Use it" : "As planned"}</button>
  </div>
  {#if iron}
    <div class="mt-2 flex flex-wrap items-end gap-3">
      <TextField label="Heated for" width="7rem" value={heated} oninput={(t) => (heated = t)} />
      <button class="act" onclick={simulate}>Read the simulated thermometer</button>
    </div>
  {/if}
  {#if cool}
    <div role="status" class="mt-2 border-l-4 border-secondary pl-3" data-cool>
      <p class="font-semibold"><Say text={cool.title} /></p>
      <p class="text-[0.875rem] leading-snug quiet"><Say text={cool.reason} /></p>
    </div>
  {:else if inside.surfaceNow != null && !inside.busy}
    <p role="status" class="mt-2 text-[0.875rem] quiet">Hot enough: lay on.</p>
  {/if}
  {#if signs.length}
    <fieldset class="mt-3">
      <legend class="text-[0.8125rem] quiet">No thermometer? What do you see?</legend>
      {#each signs as sign (sign.key)}
        <label class="flex min-h-9 cursor-pointer items-center gap-2 text-[0.9375rem]">
          <input
            type="checkbox"
            class="size-5 accent-primary"
            checked={seen.includes(sign.key)}
            onchange={() => toggle(sign.key)}
          />
          {sign.title}
        </label>
      {/each}
    </fieldset>
    {#if guess}
      {@const found = guess}
      <p role="status" class="mt-1 leading-snug" data-guess>
        Between <Qty kind="temp_c" value={found.low_c} high={found.high_c} />, say <Qty
          kind="temp_c"
          value={found.usual_c}
        />. Common practice; a thermometer knows.
      </p>
      <button
        class="mt-1 act"
        onclick={() =>
          bench.edit({ kind: "set", figure: "surface_temp", value: Math.round(found.usual_c), item: "" })}
        >Take it for the surface</button
      >
    {/if}
  {/if}
  {#if problem}<p role="alert" class="mt-1 text-error">{problem}</p>{/if}
</section>
