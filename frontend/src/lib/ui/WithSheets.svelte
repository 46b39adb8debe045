<!-- What is opened beside the figures of a formula: asked for while it is shown, and again when the formula changes. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import type { Formula, Sheets } from "../api/client";
  import type { Bench } from "../bench.svelte";

  let { bench, formula, children }: { bench: Bench; formula: Formula; children: Snippet<[Sheets]> } =
    $props();
  $effect(() => bench.sheets.ask(formula));
</script>

{#if bench.sheets.value}
  {@render children(bench.sheets.value)}
{:else if bench.sheets.problem}
  <p role="alert" class="text-error">{bench.sheets.problem.detail}</p>
{:else}
  <p class="quiet" aria-busy="true">Loading…</p>
{/if}
