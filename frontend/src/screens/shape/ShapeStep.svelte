<!-- Step 4: how the batch divides; the piece to scale; how pieces lie and are handled. -->
<script lang="ts">
  import Tabs from "../../lib/ui/Tabs.svelte";
  import type { StepProps } from "../step";
  import DivideTab from "./DivideTab.svelte";
  import LayTab from "./LayTab.svelte";
  import PieceTab from "./PieceTab.svelte";
  import WithSheets from "../../lib/ui/WithSheets.svelte";

  let props: StepProps = $props();
  const tabs = $derived([
    { key: "piece", title: props.evaluation.shape.form === "crumbled" ? "Portion" : "Piece" },
    { key: "divide", title: "Divide" },
    { key: "lay", title: "Lay out" },
  ] as const);
  const views = { piece: PieceTab, divide: DivideTab };
  let open = $state<keyof typeof views | "lay">("piece");
</script>

<Tabs heading="Shape" {tabs} {open} onopen={(key) => (open = key as typeof open)}>
  <div class="pt-3">
    {#if open === "lay"}
      <WithSheets bench={props.bench} formula={props.formula}>
        {#snippet children(sheets)}<LayTab {...props} {sheets} />{/snippet}
      </WithSheets>
    {:else}
      {@const View = views[open]}
      <View {...props} />
    {/if}
  </div>
</Tabs>
