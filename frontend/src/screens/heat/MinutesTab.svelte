<!-- Habit's minutes on a clock, and the core wanted beside the published floor. -->
<script lang="ts">
  import type { StepProps } from "../step";
  import CoreScale from "./CoreScale.svelte";
  import StageClock from "./StageClock.svelte";

  let { bench, evaluation }: StepProps = $props();
  const heat = $derived(evaluation.heat);
  const reach = {
    usually: "Habit. At this thickness and heat they usually reach the floor; a thermometer knows.",
    "may-fall-short": "Habit. They may fall short of the floor: let a thermometer decide.",
    "thermometer-decides": "Habit, for the pan only. The thermometer decides when it is done.",
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
      {heat.reach === "thermometer-decides" && !["disc", "filled", "spread"].includes(evaluation.style.form)
        ? "Habit, to plan by. The thermometer decides when it is done."
        : reach[heat.reach]}
    </p>
    <StageClock {heat} />
  </section>
  <section aria-label="Core and floor">
    <h2 class="text-base">Core and floor</h2>
    <p class="text-[0.8125rem] leading-snug quiet">
      {heat.floors.leading.authority} leads: {heat.floors.why}.
    </p>
    <CoreScale {bench} {heat} />
  </section>
</div>
<p class="mt-2 text-[0.8125rem] leading-snug quiet">
  {#if !heat.probe}A piece this thin cannot be probed: go by the cues under each stage.{/if}
  Colour and a cut mislead in mince. Local codes and licensed practice decide; Vianda shows the floor and never
  calls a dish safe.
</p>
