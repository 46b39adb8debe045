<!-- Step 5: the way it is cooked, what goes on inside, the core wanted beside the published floor, and questions. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Tabs from "../../lib/ui/Tabs.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import AskTab from "./AskTab.svelte";
  import { HeatBench } from "./heat.svelte";
  import InsideTab from "./InsideTab.svelte";
  import MinutesTab from "./MinutesTab.svelte";
  import WayTab from "./WayTab.svelte";

  let props: StepProps = $props();
  const { bench, onworking } = $derived(props);
  const formula = $derived(props.formula);
  const evaluation = $derived(props.evaluation);
  const kitchen = $derived(props.kitchen);
  const heat = $derived(evaluation.heat);
  const tabs = [
    { key: "minutes", title: "Minutes and floor" },
    { key: "inside", title: "Inside the piece" },
    { key: "way", title: "The way" },
    { key: "ask", title: "Ask" },
  ] as const;
  let open = $state<(typeof tabs)[number]["key"]>("minutes");
  const inside = new HeatBench();

  // The kitchen is asked with the formula: what its surfaces are made of moves the curve too.
  $effect(() => {
    void [kitchen, inside.surfaceNow, inside.probes, inside.turned, inside.left];
    return inside.ask(formula);
  });
</script>

<Tabs heading="Heat" {tabs} {open} onopen={(key) => (open = key as typeof open)}>
  {#snippet above()}
    <div class="mt-3 flex flex-wrap items-start gap-x-5 gap-y-4">
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
        figure="target_core_temp"
        label="Core wanted"
        kind="temp_c"
        value={formula.heat.target_core_temp_c}
        width="8.5rem"
      />
      {#if open === "minutes"}
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
      {/if}
    </div>
  {/snippet}

  {#if open === "minutes"}<MinutesTab {...props} />
  {:else if open === "inside"}<InsideTab {...props} {inside} />
  {:else if open === "way"}<WayTab {...props} {inside} />
  {:else}<AskTab {...props} {inside} />{/if}
</Tabs>
