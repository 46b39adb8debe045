<!-- Check-weighing of this formula: begin, or go on with a run that is not finished. -->
<script lang="ts">
  import { api, ProblemError, type WeighingLine } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { moment } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { navigate } from "../../router";

  let { bench, step }: { bench: Bench; step: number } = $props();
  let runs = $state.raw<WeighingLine[]>([]);
  let problem = $state<string | null>(null);
  let busy = $state(false);
  let chosen = $state<number | null>(null);
  const reads = $derived(chosen ?? step);
  const open = $derived(runs.find((r) => !r.finished_at));

  $effect(() => {
    api.weighings(bench.id).then(
      (found) => (runs = found),
      () => undefined, // The bench says for itself that the server does not answer.
    );
  });
  async function begin(): Promise<void> {
    busy = true;
    problem = null;
    try {
      if (!(await bench.settle())) {
        problem = "The formula is not saved yet; it is weighed as saved. Wait a moment and press again.";
        return;
      }
      const run = await api.beginWeighing(bench.id, reads);
      await navigate(`/weigh/${run.id}` as "/");
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    } finally {
      busy = false;
    }
  }
</script>

<section aria-label="Check-weigh" class="mt-6 border-t border-base-300 pt-3">
  <div class="flex flex-wrap items-center justify-between gap-x-5 gap-y-2">
    <div>
      <h2 class="text-base">Check-weigh</h2>
      <p class="text-[0.875rem] quiet">
        Each piece on a bench scale: what to add or pinch off, and whether the count comes out.
      </p>
    </div>
    <div class="flex items-end gap-2">
      <PickField
        label="Scale reads"
        width="5.5rem"
        value={String(reads)}
        options={[1, 2, 5, 10].map((g) => ({ key: String(g), title: `${g} g` }))}
        onpick={(key) => (chosen = Number(key))}
      />
      {#if open}<a class="act-main" href={`/weigh/${open.id}`}>Go on with {open.counted} of {open.pieces}</a
        >{/if}
      <button class={open ? "act min-h-12" : "act-main"} onclick={begin} disabled={busy}
        >{open ? "Begin anew" : "Begin to weigh"}</button
      >
    </div>
  </div>
  {#if problem}<p role="alert" class="mt-1 text-sm text-error">{problem}</p>{/if}
  {#each runs.filter((r) => r.finished_at).slice(0, 5) as run (run.id)}
    <a
      class="flex min-h-9 items-baseline justify-between gap-4 border-b border-base-300 py-1.5 hover:bg-base-200"
      href={`/weigh/${run.id}`}
    >
      <span>{moment(run.started_at)}{run.begun_by ? `, ${run.begun_by}` : ""}</span>
      <span class="quiet"
        >{run.good} of {run.counted} within tolerance{#if run.mean_g != null}, mean <Qty
            kind="mass_g"
            value={run.mean_g}
          />{/if}</span
      >
    </a>
  {/each}
</section>
