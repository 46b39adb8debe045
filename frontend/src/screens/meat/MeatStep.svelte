<!-- Step 2: the blend; ways to a target; names and money; the grind and the butcher's slip. -->
<script lang="ts">
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
  const views = { blend: BlendTab, target: TargetTab, money: MoneyTab, grind: GrindTab };
  let open = $state<keyof typeof views>("blend");
  const View = $derived(views[open]);
</script>

<Tabs heading="Meat" {tabs} {open} onopen={(key) => (open = key as keyof typeof views)}>
  <div class="pt-3">
    <View {...props} />
  </div>
</Tabs>
