<!-- Salt from a shaker: weigh what falls in so many shakes, and read how many a side takes. -->
<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import { onDestroy } from "svelte";
  import { api, type Shaker } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { Told } from "../../lib/told.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";

  let { evaluation }: StepProps = $props();
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  interface Trial {
    grams: number;
    shakes: number;
  }
  let trials = $state.raw<Trial[]>([]);
  let before = $state("");
  let after = $state("");
  let shakes = $state("10");
  let wanted_g = $state<number | null>(null);
  const told = new Told();
  const outside = $derived(evaluation.salt.salt_place === "surface");
  const side_g = $derived(wanted_g ?? (outside ? evaluation.salt.side_salt_g : 0));
  const pieces = $derived(evaluation.portions.pieces);
  const shaker = new Resource<null, Shaker>((_, signal) => api.shaker({ trials, side_g, pieces }, signal));

  $effect(() => {
    void [side_g, pieces];
    if (trials.length === 0 || side_g <= 0) {
      shaker.clear();
      return;
    }
    return shaker.ask(null);
  });
  onDestroy(() => shaker.clear());

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await told.run(async () => {
      const [was, is, count] = await Promise.all([
        api.read("mass_g", before, units.system),
        api.read("mass_g", after, units.system),
        api.read("number", shakes, units.system),
      ]);
      const { mass_g } = await api.poured({
        lines: [],
        ingredient: "",
        before_g: was.value,
        after_g: is.value,
      });
      trials = [...trials, { grams: mass_g, shakes: count.value }];
      // The scale goes on from where it stands.
      before = after;
      after = "";
    });
  }
</script>

<div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 md:grid-cols-2">
  <section aria-label="Weigh it">
    <h2 class="text-lg">Weigh it</h2>
    <p class="mt-1 max-w-[30rem] text-[0.875rem] quiet">
      Shaker or saucer on the scale, before and after so many shakes. Two weighings or more also show how even
      it is.
    </p>
    <form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={add}>
      {#each [["Before", () => before, (t: string) => (before = t)], ["After", () => after, (t: string) => (after = t)], ["Shakes", () => shakes, (t: string) => (shakes = t)]] as const as [label, get, set] (label)}
        <label class="block text-[0.8125rem] quiet"
          >{label}<input
            class="mt-0.5 block h-[2.625rem] w-20 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base numeral text-base-content"
            autocomplete="off"
            value={get()}
            oninput={(e) => set(e.currentTarget.value)}
          /></label
        >
      {/each}
      <button class={["act h-[2.625rem]", trials.length === 0 && "act-main"]} disabled={!before || !after}
        >Note it</button
      >
    </form>
    {#if told.problem}<p role="alert" class="mt-2 text-[0.875rem] text-error">{told.problem}</p>{/if}
    <ul class="mt-3" aria-label="Weighings">
      {#each trials as trial, n (n)}
        <li class="flex items-center justify-between border-t border-base-300 py-1">
          <span class="numeral"><Qty kind="mass_g" value={trial.grams} /> in {trial.shakes} shakes</span>
          <button class="act size-10 p-0" onclick={() => (trials = trials.filter((_, at) => at !== n))}
            ><Trash size={18} aria-hidden="true" /><span class="sr-only">Strike weighing {n + 1}</span
            ></button
          >
        </li>
      {/each}
    </ul>
  </section>

  <section aria-label="Shake it">
    <h2 class="text-lg">Shake it</h2>
    <div class="mt-2">
      <QuickField
        label="Salt on a side"
        value={side_g > 0 ? mass(side_g) : ""}
        placeholder="0.8 g"
        oncommit={(t) => told.read("mass_g", t, (v) => (wanted_g = v))}
      />
    </div>
    {#if shaker.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">
        {shaker.problem.detail}
      </p>{/if}
    {#if shaker.value}
      {@const found = shaker.value}
      <p class="mt-3 text-[2.5rem] leading-none numeral" data-shakes>
        {found.shakes}
        <span class="text-base font-normal">{found.shakes === 1 ? "shake" : "shakes"} a side</span>
      </p>
      <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3">
        <Fact label="One shake"><Qty kind="mass_mg" value={found.per_shake_mg} /></Fact>
        <Fact label="A side gets"
          >{#if found.known}<Qty
              kind="mass_g"
              value={found.gives_g.low}
              high={found.gives_g.high}
            />{:else}<Qty kind="mass_g" value={found.gives_g.usual} />{/if}</Fact
        >
        <Fact label={`All ${found.sides} sides`}><Qty kind="mass_g" value={found.tray_g} /></Fact>
      </div>
      <p class="mt-2 max-w-[30rem] text-[0.875rem] leading-snug">
        {#if !found.close}<span class="text-warning"
            >Whole shakes give {Math.round(Math.abs(found.off_frac) * 100)} % {found.off_frac > 0
              ? "more"
              : "less"} than wanted: a finer shaker comes nearer.</span
          >{:else}Whole shakes come within {Math.max(1, Math.round(Math.abs(found.off_frac) * 100))} % of what is
          wanted.{/if}
        {#if found.known}One side differs from the next by about {Math.round(found.spread_frac * 100)} %.{/if}
        {#if !found.known}One weighing does not show how even it is.{/if}
      </p>
    {:else if side_g <= 0}
      <p class="mt-3 text-[0.9375rem]">
        The salt of this formula is mixed in. Say what a side is to get, or put the salt on the surface on the
        Mix step.
      </p>
    {:else}
      <p class="mt-3 text-[0.9375rem] quiet">Note a weighing, and the number of shakes stands here.</p>
    {/if}
  </section>
</div>
