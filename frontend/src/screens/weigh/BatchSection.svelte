<!-- The batch so far: mean and spread, the bowl, the control chart, and every piece on record. -->
<script lang="ts">
  import { api, type WeighingAction } from "../../lib/api/client";
  import { fine, reading as grams } from "../../lib/grams";
  import Say from "../../lib/ui/Say.svelte";
  import ControlChart from "./ControlChart.svelte";
  import Leftover from "./Leftover.svelte";
  import PieceList from "./PieceList.svelte";
  import type { WeighingRun } from "./weighing.svelte";

  interface Props {
    run: NonNullable<WeighingRun["run"]>;
    onact: (action: WeighingAction["action"], about?: number | null) => void;
    onnoted: (run: NonNullable<WeighingRun["run"]>) => void;
  }
  let { run, onact, onnoted }: Props = $props();
  const running = $derived(run.running);
  const rules: Record<string, string> = {
    "beyond-3s": "beyond three sigma",
    "2-of-3-beyond-2s": "two of three beyond two sigma, one side",
    "4-of-5-beyond-1s": "four of five beyond one sigma, one side",
    "8-on-one-side": "eight in a row on one side",
    "6-in-a-row-rising-or-falling": "six in a row rising or falling",
  };
  const lately = $derived(running.broken.filter((b) => b.at > running.counted - 3));
</script>

<section aria-label="The batch">
  <div class="flex flex-wrap gap-x-8 gap-y-2">
    <p>
      <span class="block text-[0.8125rem] opacity-80">Mean</span><span class="text-2xl numeral" data-mean
        >{running.chart.mean_g == null ? "–" : fine(running.chart.mean_g)}</span
      >
    </p>
    <p>
      <span class="block text-[0.8125rem] opacity-80">Spread (one sd)</span><span class="text-2xl numeral"
        >{running.chart.sd_g == null ? "–" : fine(running.chart.sd_g)}</span
      >
    </p>
    <p>
      <span class="block text-[0.8125rem] opacity-80">Within tolerance</span><span class="text-2xl numeral"
        >{running.good} of {running.counted}</span
      >
    </p>
    <p>
      <span class="block text-[0.8125rem] opacity-80">Left in the bowl</span><span
        class="text-2xl numeral"
        data-left>{grams(running.bowl.left_g)}</span
      >
    </p>
  </div>
  <p class={["mt-2 text-lg", running.bowl.comes_out || running.complete ? "" : "font-semibold text-warning"]}>
    <Say text={running.bowl.line} />
  </p>
  <ControlChart {running} plan={run.plan} />
  {#if lately.length > 0}
    <ul class="mt-1 text-warning">
      {#each lately as broken (`${broken.rule}${broken.at}`)}
        <li>
          Piece {broken.at}: {rules[broken.rule]}. Look what changed: the mix, the hand, the scale.
        </li>
      {/each}
    </ul>
  {/if}
  <PieceList records={running.records} finished={!!run.finished_at} {onact} />
  <div class="mt-3 flex flex-wrap gap-3">
    <a class="act" href={api.recordsPath(run.id)} download>The record as CSV</a>
    {#if !run.finished_at && !running.complete}
      <button class="act" onclick={() => onact("finish")}>Finish now</button>
    {/if}
  </div>
  {#if run.finished_at && running.counted > 0}<Leftover {run} {onnoted} />{/if}
</section>
