<!-- Step 3: what goes into the meat; its salt; the whole; how it is made; how it is weighed. -->
<script lang="ts">
  import Tabs from "../../lib/ui/Tabs.svelte";
  import type { StepProps } from "../step";
  import BowlTab from "./BowlTab.svelte";
  import MethodTab from "./MethodTab.svelte";
  import SaltTab from "./SaltTab.svelte";
  import WeighTab from "./WeighTab.svelte";
  import WholeTab from "./WholeTab.svelte";
  import WithSheets from "../../lib/ui/WithSheets.svelte";

  let props: StepProps = $props();
  const tabs = [
    { key: "bowl", title: "Bowl" },
    { key: "salt", title: "Salt" },
    { key: "whole", title: "Whole mix" },
    { key: "method", title: "Method" },
    { key: "weigh", title: "Weigh out" },
  ] as const;
  const views = { bowl: BowlTab, salt: SaltTab, whole: WholeTab };
  const sheets = { method: MethodTab, weigh: WeighTab };
  let open = $state<keyof typeof views | keyof typeof sheets>("bowl");
</script>

<Tabs heading="Mix" {tabs} {open} onopen={(key) => (open = key as typeof open)}>
  <div class="pt-3">
    {#if open === "method" || open === "weigh"}
      {@const View = sheets[open]}
      <WithSheets bench={props.bench} formula={props.formula}>
        {#snippet children(opened)}<View {...props} sheets={opened} />{/snippet}
      </WithSheets>
    {:else}
      {@const View = views[open]}
      <View {...props} />
    {/if}
  </div>
</Tabs>
