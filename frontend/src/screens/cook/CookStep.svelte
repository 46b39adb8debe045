<!-- Step 8: what will happen at the stove, once its steps are here. -->
<script lang="ts">
  import WithSheets from "../../lib/ui/WithSheets.svelte";
  import type { StepProps } from "../step";
  import CookPlan from "./CookPlan.svelte";

  let props: StepProps = $props();
</script>

<WithSheets bench={props.bench} formula={props.formula}>
  {#snippet children(sheets)}<CookPlan {...props} {sheets} />{/snippet}
</WithSheets>
