<!-- Step 2: the blend; ways to a target; names and money; the grind and the butcher's slip. -->
<script lang="ts">
  import StepHead from "../../lib/ui/StepHead.svelte";
  import Tabs from "../../lib/ui/Tabs.svelte";
  import type { StepProps } from "../step";
  import BlendTab from "./BlendTab.svelte";
  import GrindTab from "./GrindTab.svelte";
  import MoneyTab from "./MoneyTab.svelte";
  import TargetTab from "./TargetTab.svelte";

  let props: StepProps = $props();
  const tabs = [
    { key: "blend", title: "Blend" },
    { key: "target", title: "Reach a target" },
    { key: "money", title: "Names and money" },
    { key: "grind", title: "Grind and slip" },
  ] as const;
  const lines: Record<string, string> = {
    blend: "Drag an edge, type a share or a weight, or nudge with the arrow keys.",
    target: "Say how fat it should be, and from what; every way shows its arithmetic.",
    money: "What it may be called, and what a kilo in the bowl costs.",
    grind: "Cubes, cold, plate and loads; or a slip for the butcher.",
  };
  const views = { blend: BlendTab, target: TargetTab, money: MoneyTab, grind: GrindTab };
  let open = $state<keyof typeof views>("blend");
  const View = $derived(views[open]);
</script>

<StepHead title="Meat" line={lines[open] ?? ""} />
<Tabs label="Meat" {tabs} {open} onopen={(key) => (open = key as keyof typeof views)} />
<div role="tabpanel" aria-label={tabs.find((t) => t.key === open)?.title} class="pt-3">
  <View {...props} />
</div>
