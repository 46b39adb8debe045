<!-- What the cook saw of this piece: a probe reading, the moment to turn, what was left; the curve is fitted to it. -->
<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { api, type Formula } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import { refusalOf } from "../../lib/refusal";
  import type { HeatBench } from "./heat.svelte";

  let {
    formula,
    inside,
    probe,
    flat,
  }: { formula: Formula; inside: HeatBench; probe: boolean; flat: boolean } = $props();
  const typed = $state({ at: "", core: "", turned: "", left: "" });
  let problem = $state<string | null>(null);
  const fitted = $derived(inside.curve?.fitted ?? null);
  const seed = 7;

  async function attempt(run: () => Promise<void>): Promise<void> {
    problem = null;
    problem = (await refusalOf(run)) ?? problem;
  }
  const seconds = async (text: string) => (await api.read("time_s", text, units.system)).value;
  const add = () =>
    attempt(async () => {
      const [at, core] = await Promise.all([seconds(typed.at), api.read("temp_c", typed.core, units.system)]);
      inside.addProbe(at, core.value);
      typed.at = typed.core = "";
    });
  const simulate = () =>
    attempt(async () => {
      const read = await api.readProbe(formula, typed.at ? await seconds(typed.at) : null, seed);
      inside.addProbe(read.at_s, read.shown_c);
      typed.at = "";
    });
  const turned = () =>
    attempt(async () => {
      inside.turned = typed.turned ? await seconds(typed.turned) : null;
    });
  const left = () =>
    attempt(async () => {
      inside.left = typed.left ? (await api.read("frac", typed.left, units.system)).value : null;
    });
</script>

<section aria-label="What you saw">
  <h2 class="text-base">What you saw of this piece</h2>
  <div class="mt-1 flex flex-wrap items-end gap-x-3 gap-y-2">
    {#if probe}
      <TextField
        label="Probe at"
        width="5.5rem"
        placeholder="3:00"
        value={typed.at}
        oninput={(t) => (typed.at = t)}
      />
      <TextField
        label="It read"
        width="5.5rem"
        placeholder={amount({ kind: "temp_c", value: 52 }, units)}
        value={typed.core}
        oninput={(t) => (typed.core = t)}
      />
      <button class="act" disabled={!typed.at || !typed.core} onclick={add}>Fit to it</button>
      <button class="act" onclick={simulate}>Read the simulated probe</button>
    {:else if flat}
      <TextField
        label="Ready to turn at"
        width="6rem"
        placeholder="1:05"
        value={typed.turned}
        oninput={(t) => (typed.turned = t)}
      />
      <button class="act" onclick={turned}>Fit to it</button>
    {/if}
  </div>
  <div class="mt-2 flex flex-wrap items-end gap-x-3 gap-y-2">
    <TextField
      label="Left of the weight"
      width="6.5rem"
      placeholder="74 %"
      value={typed.left}
      oninput={(t) => (typed.left = t)}
    />
    <button class="act" disabled={!typed.left} onclick={left}>Fit the juice</button>
  </div>
  {#if problem}<p role="alert" class="mt-1 text-[0.875rem] text-error">{problem}</p>{/if}
  {#if inside.probes?.length}
    <ul class="mt-2 flex flex-wrap gap-2" aria-label="Probe readings">
      {#each inside.probes as reading, at (at)}
        <li
          class="flex items-center rounded-[0.25rem] border border-base-300 pl-2.5 text-[0.9375rem] numeral"
        >
          {time(reading.at_s)}&ensp;<Qty kind="temp_c" value={reading.core_c} />
          <button
            class="grid size-9 cursor-pointer place-items-center hover:bg-base-200"
            aria-label={`Forget the reading at ${time(reading.at_s)}`}
            onclick={() => (inside.probes = inside.probes?.filter((_, n) => n !== at))}
            ><X size={14} /></button
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if fitted}
    <p
      role="status"
      data-fitted
      class={["mt-2 text-[0.9375rem] leading-snug", fitted.refused && "text-error"]}
    >
      <Say text={fitted.message} />
    </p>
    <button class="mt-2 act" onclick={() => inside.forget()}>Forget what was seen</button>
  {:else}
    <p class="mt-1 text-[0.8125rem] leading-snug quiet">
      One good reading in the middle of the cook narrows the times to a tenth or so. It counts for this piece,
      while this step is open.
    </p>
  {/if}
</section>
