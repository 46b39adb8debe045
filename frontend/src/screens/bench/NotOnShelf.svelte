<!-- In place of the bench, for a formula that was archived or never was; the first can be brought back. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { refusalOf } from "../../lib/refusal";

  let { bench, id }: { bench: Bench; id: number } = $props();
  let problem = $state<string | null>(null);

  async function restore(): Promise<void> {
    problem = await refusalOf(() => api.restoreFormula(id));
    if (!problem) await bench.load();
  }
</script>

<main id="main" class="mx-auto w-full max-w-xl p-8">
  <h1 class="text-2xl">Formula {id} is not on the shelf</h1>
  {#if problem}
    <p class="mt-2" role="alert">It cannot be restored: {problem}</p>
  {:else}
    <p class="mt-2">If it was archived, it can be restored with all its versions.</p>
  {/if}
  <div class="mt-4 flex gap-3">
    {#if !problem}<button class="act-main" onclick={restore}>Restore</button>{/if}
    <a class="act" href="/">To the shelf</a>
  </div>
</main>
