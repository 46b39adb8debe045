<!-- How good the forecasts were, each made again from what was known before its cook. -->
<script lang="ts">
  import type { ForecastScore } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  let { scores }: { scores: readonly ForecastScore[] } = $props();
</script>

<section class="mt-9" aria-labelledby="scores">
  <h2 id="scores" class="border-b-2 border-base-content pb-1 text-lg">How good the forecasts were</h2>
  <p class="mt-1 max-w-[44rem] text-[0.875rem] quiet">
    Each forecast is made again from what was known before that cook alone. A range of eight in ten should
    hold in eight of ten cooks: less often, and the ranges are too narrow; always, and they are too wide.
  </p>
  <table class="mt-2 w-full">
    <thead class="text-left text-[0.75rem] quiet">
      <tr
        ><th class="py-1 pr-4 font-normal">Figure</th>
        <th class="pr-4 text-right font-normal max-sm:hidden">Readings</th>
        <th class="pr-4 text-right font-normal">Range of 8 in 10 held</th>
        <th class="pr-4 text-right font-normal max-sm:hidden">The plan’s own range held</th>
        <th class="pr-4 text-right font-normal">Half were off by less than</th>
        <th class="text-right font-normal">By the tables alone</th></tr
      >
    </thead>
    <tbody>
      {#each scores as score (score.figure)}
        <tr class="border-t border-base-300">
          <th scope="row" class="py-2 pr-4 text-left font-semibold whitespace-nowrap">{score.title}</th>
          <td class="pr-4 text-right numeral max-sm:hidden"><Qty kind="count" value={score.cooks} /></td>
          <td class="pr-4 text-right"
            ><span class="numeral"><Qty kind="frac" value={score.held_frac.usual} /></span>
            <span class="text-[0.8125rem] quiet"
              >(<Qty kind="frac" value={score.held_frac.low} high={score.held_frac.high} />)</span
            ></td
          >
          <td class="pr-4 text-right numeral max-sm:hidden"
            ><Qty kind="frac" value={score.plan_held_frac} /></td
          >
          <td class="pr-4 text-right numeral"><Qty kind="frac" value={score.off_frac} /></td>
          <td class="text-right numeral"><Qty kind="frac" value={score.plan_off_frac} /></td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>
