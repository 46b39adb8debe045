<!-- Step 6: what goes with it and how much, how a sauce tastes and is nudged, what is built, what cooks in a pot, stands in a jar or falls from a shaker. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Tabs from "../../lib/ui/Tabs.svelte";
  import type { StepProps } from "../step";
  import BesideTab from "./BesideTab.svelte";
  import JarTab from "./JarTab.svelte";
  import PotTab from "./PotTab.svelte";
  import ShakerTab from "./ShakerTab.svelte";
  import StackTab from "./StackTab.svelte";
  import TasteTab from "./TasteTab.svelte";

  let props: StepProps = $props();
  const served = $derived(props.evaluation.served);
  const tabs = [
    { key: "beside", title: "What goes with it" },
    { key: "taste", title: "Taste" },
    { key: "stack", title: "The build" },
    { key: "pot", title: "Pot" },
    { key: "jar", title: "Jar" },
    { key: "shaker", title: "Shaker" },
  ] as const;
  let open = $state<(typeof tabs)[number]["key"]>("beside");
</script>

<Tabs heading="Sauce" {tabs} {open} onopen={(key) => (open = key as typeof open)}>
  {#snippet above()}
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3" role="group" aria-label="A portion as served">
      <Fact label="A portion, as served"><Qty kind="energy_kcal" value={served.energy_kcal} /></Fact>
      <Fact label="Fat"><Qty kind="mass_g" value={served.fat_g} /></Fact>
      <Fact label="Sugars"><Qty kind="mass_g" value={served.sugars_g} /></Fact>
      <Fact label="Salt"><Qty kind="mass_g" value={served.salt_g} /></Fact>
      <Fact label="Protein"><Qty kind="mass_g" value={served.protein_g} /></Fact>
    </div>
  {/snippet}
  {#if open === "beside"}<BesideTab {...props} />
  {:else if open === "taste"}<TasteTab {...props} />
  {:else if open === "stack"}<StackTab {...props} />
  {:else if open === "pot"}<PotTab {...props} />
  {:else if open === "jar"}<JarTab {...props} />
  {:else}<ShakerTab {...props} />{/if}
</Tabs>
