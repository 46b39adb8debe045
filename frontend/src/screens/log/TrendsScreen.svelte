<!-- Figures of cooks over time, on control charts, of one formula or of a kind of dish. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type FormulaName, type Trend } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TrendChart from "./TrendChart.svelte";

  let formula = $state("");
  const shelf = new Resource<null, FormulaName[]>(() => api.formulas());
  shelf.ask(null);
  const asked = new Resource<string, Trend[]>((key, signal) =>
    api.trends({ formula_id: key ? Number(key) : null, dish: "" }, signal),
  );
  $effect(() => asked.ask(formula));
  onDestroy(() => {
    shelf.clear();
    asked.clear();
  });
  const options = $derived([
    { key: "", title: "All formulas" },
    ...(shelf.value ?? []).map((item) => ({ key: String(item.id), title: item.name })),
  ]);
</script>

<svelte:head><title>Trends · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p><a class="text-primary underline underline-offset-3" href="/log">Logbook</a></p>
    <div class="mt-2 flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <h1 class="text-2xl">Trends</h1>
      <PickField label="Formula" value={formula} {options} onpick={(key) => (formula = key)} />
    </div>
    <p class="mt-2 max-w-[44rem] text-[0.875rem] quiet">
      Cooks in their order, the newest on the right; pale bars are what was forecast. Limits are three spreads
      from the mean, the spread taken from one cook to the next. A ring calls for a look.
    </p>
    {#if asked.problem}<p role="alert" class="mt-3 text-error">{asked.problem.detail}</p>{/if}
    {#if !asked.value}
      {#if !asked.problem}<p class="mt-3 quiet" aria-busy="true">Drawing …</p>{/if}
    {:else}
      <div data-trends={asked.busy ? "asking" : "ready"}>
        {#each asked.value as trend (trend.figure)}<TrendChart {trend} />{:else}
          <p class="mt-4">Fewer than two finished cooks were weighed, measured or scored.</p>
        {/each}
      </div>
    {/if}
  </main>
</Shell>
