<!-- Computed minutes on a clock, usual practice beside them, and the core wanted beside the published floor. -->
<script lang="ts">
  import { amount, time } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";
  import CoreScale from "./CoreScale.svelte";
  import StageClock from "./StageClock.svelte";

  let { bench, evaluation, catalogue }: StepProps = $props();
  const heat = $derived(evaluation.heat);
  const t = (value: number) => amount({ kind: "temp_c", value }, units);
  const reach = {
    usually: "As computed the coldest meat comes to the floor; a thermometer knows.",
    "may-fall-short": "As computed the coldest meat may stay short of the floor.",
    "thermometer-decides": "Computed, to plan by. The thermometer decides when it is done.",
  } as const;
</script>

<div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-5 md:grid-cols-[minmax(0,1fr)_18.5rem]">
  <section aria-label="Minutes">
    <h2 class="text-base">Minutes</h2>
    <p
      class={[
        "text-[0.8125rem] leading-snug",
        heat.reach === "usually" ? "quiet" : "font-semibold text-warning",
      ]}
    >
      {#if heat.model === "practice"}Usual practice: by look and tenderness.{:else}{reach[heat.reach]}{/if}
    </p>
    {#each heat.before as stage, at (at)}
      <p class="mt-2 flex items-baseline justify-between gap-3 text-[0.875rem]">
        <span class="font-semibold">{stage.title}</span><span class="numeral">{time(stage.timer_s)}</span>
      </p>
      <p class="text-[0.8125rem] quiet"><Say text={stage.cue} /></p>
    {/each}
    <StageClock {heat} />
  </section>
  <section aria-label="Core and floor">
    <h2 class="text-base">Core and floor</h2>
    <p class="text-[0.8125rem] leading-snug quiet">
      {heat.floors.leading.authority} leads: {heat.floors.why}.
    </p>
    <CoreScale {bench} {heat} bands={catalogue.doneness} />
  </section>
</div>
<p class="mt-2 text-[0.8125rem] leading-snug quiet">
  {#if heat.probe && heat.meat_lags}The middle must read {t(heat.pull_c)}: the coldest meat lies above it,
    where the heat of the first side did not reach. Turned often, it is evener.
  {/if}
  {#if !heat.probe}A piece this thin cannot be probed: go by the cues under each stage.{/if}
  Colour and a cut mislead in mince. Local codes and licensed practice decide; Vianda shows the floor and never
  calls a dish safe.
</p>
