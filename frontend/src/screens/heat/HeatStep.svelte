<!-- Step 5: the stages on a clock, and the core wanted beside the published floor. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import CoreScale from "./CoreScale.svelte";
  import StageClock from "./StageClock.svelte";

  let { bench, formula, evaluation, kitchen, onworking }: StepProps = $props();
  const heat = $derived(evaluation.heat);
  const reach = {
    usually: "Habit. At this thickness and heat they usually reach the floor; a thermometer knows.",
    "may-fall-short": "Habit. They may fall short of the floor: let a thermometer decide.",
    "thermometer-decides": "Habit, for the pan only. The thermometer decides when it is done.",
  } as const;
</script>

<StepHead
  title="Heat"
  line="From the table of habit: from–to minutes, no physics. The core wanted stands beside the published floor."
/>

<div class="flex flex-wrap items-start gap-x-5 gap-y-4">
  <PickField
    label={evaluation.style.baked ? "Oven" : "Surface"}
    value={formula.heat.surface}
    options={kitchen.surfaces.map((s) => ({ key: s.key, title: s.name }))}
    onpick={(key) => bench.edit({ kind: "choose", field: "surface", key })}
    refusal={bench.refusal?.target === "surface" ? bench.refusal.detail : null}
  />
  <ValueField
    {bench}
    figure="surface_temp"
    label={evaluation.style.baked ? "Oven, measured" : "Surface, measured"}
    kind="temp_c"
    value={formula.heat.surface_temp_c}
    width="8.5rem"
  />
  <ValueField
    {bench}
    figure="core_target"
    label="Core wanted"
    kind="temp_c"
    value={formula.heat.core_target_c}
    width="8.5rem"
  />
  <div class="flex gap-8 pt-0.5">
    {#if heat.flip_s.high > 0}<Fact label="Flip" onclick={() => onworking("minutes")}
        ><Qty kind="time_s" value={heat.flip_s.low} high={heat.flip_s.high} /></Fact
      >{:else}<Fact label="On the heat" onclick={() => onworking("minutes")}
        ><Qty kind="minutes" value={heat.on_heat_s.low / 60} high={heat.on_heat_s.high / 60} /></Fact
      >{/if}
    <Fact
      label={heat.probe ? "Pull at" : "Off the heat"}
      onclick={() => onworking(heat.probe ? "core" : "minutes")}
    >
      {#if heat.probe}<Qty kind="temp_c" value={heat.pull_c} />{:else}<Qty
          kind="time_s"
          value={heat.on_heat_s.low}
          high={heat.on_heat_s.high}
        />{/if}
    </Fact>
    <Fact label="Rest" onclick={() => onworking("minutes")}
      ><Qty kind="time_s" value={heat.rest_s.low} high={heat.rest_s.high} /></Fact
    >
  </div>
</div>

<div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-5 md:grid-cols-[minmax(0,1fr)_18.5rem]">
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
