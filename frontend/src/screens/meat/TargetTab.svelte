<!-- Three ways to a target: many meats at once, two in a square, or something added to a batch. -->
<script lang="ts">
  import Segments from "../../lib/ui/Segments.svelte";
  import type { StepProps } from "../step";
  import ManyMeatsView from "./ManyMeatsView.svelte";
  import MendBatch from "./MendBatch.svelte";
  import PearsonSquare from "./PearsonSquare.svelte";

  let props: StepProps = $props();
  const ways = [
    { key: "many", title: "Many meats" },
    { key: "square", title: "Two meats, in a square" },
    { key: "mend", title: "Mend a batch" },
  ] as const;
  let way = $state<(typeof ways)[number]["key"]>("many");
</script>

<div class="mb-4">
  <Segments
    label="Way to the target"
    showLabel={false}
    options={ways}
    value={way}
    onpick={(key) => (way = key)}
  />
</div>
{#if way === "many"}<ManyMeatsView {...props} />{:else if way === "square"}<PearsonSquare
    {...props}
  />{:else}<MendBatch {...props} />{/if}
