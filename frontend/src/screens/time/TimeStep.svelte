<!-- Step 7: when to do what for this formula, backwards from the plate. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Formula, type Timetable } from "../../lib/api/client";
  import { Search } from "../../lib/search.svelte";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";
  import CarriedTab from "./CarriedTab.svelte";
  import OrdersTab from "./OrdersTab.svelte";
  import ShortTab from "./ShortTab.svelte";
  import TimetableView from "./TimetableView.svelte";

  let { bench, formula, kitchen }: StepProps = $props();
  const timed = ["type-timing", "add-task", "drop-task", "pin-task", "add-away", "drop-away"];
  const asked = new Search<Formula, Timetable>((now, signal, look) =>
    api.timetable(now, units.system, look, signal),
  );
  $effect(() => asked.ask(formula));
  onDestroy(() => asked.clear());
  const refused = $derived(
    bench.refusal && timed.includes(bench.refusal.target) ? bench.refusal.detail : null,
  );
</script>

<TimetableView
  timing={formula.timing}
  search={asked}
  table={asked.value}
  problem={asked.problem}
  refusal={refused}
  {kitchen}
  onedit={(edit) => bench.edit(edit)}
>
  {#snippet carried()}<CarriedTab {formula} />{/snippet}
  {#snippet short()}<ShortTab
      {formula}
      currency={kitchen.currency_code}
      onedit={(edit) => bench.edit(edit)}
    />{/snippet}
  {#snippet orders()}<OrdersTab {formula} onedit={(edit) => bench.edit(edit)} />{/snippet}
</TimetableView>
