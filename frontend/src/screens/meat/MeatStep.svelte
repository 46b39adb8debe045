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

<div class="flex flex-wrap items-end gap-x-6 border-b border-base-300">
  <h1 class="pb-1.5 text-2xl">Meat</h1>
  <Tabs label="Meat" {tabs} {open} onopen={(key) => (open = key as keyof typeof views)} />
</div>
<div role="tabpanel" aria-label={tabs.find((t) => t.key === open)?.title} class="pt-3">
  <View {...props} />
</div>
