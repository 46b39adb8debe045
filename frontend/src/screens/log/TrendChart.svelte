<!-- One figure of cooks in their order: forecast ranges, what came, mean and limits, and what calls for a look. -->
<script lang="ts">
  import type { Trend } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { brokenAt, heightOf, leftOf, scaleOf } from "./trend";

  let { trend }: { trend: Trend } = $props();
  const scale = $derived(scaleOf(trend));
  const count = $derived(trend.points.length);
  const kind = $derived(trend.figure === "yield" || trend.figure === "shrink" ? "frac" : "number");
  const called = $derived(
    trend.points
      .map((point, at) => ({ point, why: brokenAt(trend, at) }))
      .filter((one) => one.why.length > 0)
      .reverse(),
  );
  const lines = $derived(
    [
      { key: "upper limit", value: trend.upper, dashed: true },
      { key: "mean", value: trend.mean, dashed: false },
      { key: "lower limit", value: trend.lower, dashed: true },
    ].filter((line): line is { key: string; value: number; dashed: boolean } => line.value != null),
  );
</script>

<section class="mt-7" aria-label={trend.title}>
  <h2 class="border-b border-base-content pb-1 text-lg">{trend.title}</h2>
  <div class="mt-2 grid grid-cols-[minmax(0,1fr)_6.5rem] gap-x-2">
    <svg class="h-44 w-full overflow-visible" role="img" aria-label={`${trend.title} of ${count} cooks`}>
      {#each trend.points as point, at (`${point.cook_id}.${at}`)}
        {#if point.low != null && point.high != null}
          <line
            x1="{leftOf(at, count)}%"
            x2="{leftOf(at, count)}%"
            y1="{heightOf(point.high, scale)}%"
            y2="{heightOf(point.low, scale)}%"
            class="stroke-[var(--color-kraft)]"
            stroke-width={count > 80 ? 3 : 9}
          />
        {/if}
      {/each}
      {#each lines as line (line.key)}
        <line
          x1="0"
          x2="100%"
          y1="{heightOf(line.value, scale)}%"
          y2="{heightOf(line.value, scale)}%"
          class={line.dashed ? "stroke-[#8b8f8a]" : "stroke-base-content"}
          stroke-dasharray={line.dashed ? "5 4" : undefined}
        />
      {/each}
      {#each trend.points as point, at (`${point.cook_id}.${at}`)}
        {@const broken = brokenAt(trend, at).length > 0}
        <circle
          cx="{leftOf(at, count)}%"
          cy="{heightOf(point.value, scale)}%"
          r={broken ? 6 : 3.5}
          class={broken ? "fill-base-100 stroke-warning" : "fill-primary"}
          stroke-width="3"
        />
      {/each}
    </svg>
    <div class="relative text-[0.75rem]" aria-hidden="true">
      {#each lines as line (line.key)}
        <span class="absolute -translate-y-1/2 whitespace-nowrap" style:top="{heightOf(line.value, scale)}%"
          ><span class="numeral"><Qty {kind} value={line.value} /></span>
          <span class="quiet">{line.key}</span></span
        >
      {/each}
    </div>
  </div>
  <p class="mt-1 text-[0.875rem]">
    {#if trend.upper == null}<span class="quiet">{count} cooks. Limits follow from five on.</span>
    {:else if called.length === 0}<span class="quiet">{count} cooks, all as they usually are.</span>
    {:else}<span class="font-semibold text-warning"
        >{called.length} of {count} cooks {called.length === 1 ? "calls" : "call"} for a look.</span
      >{/if}
  </p>
  {#if called.length > 0}
    <ul class="text-[0.875rem]">
      {#each called.slice(0, 6) as { point, why } (point.cook_id)}
        <li class="border-b border-base-300 py-1">
          <a class="text-primary underline underline-offset-3" href={`/log/${point.cook_id}`}
            >{moment(point.started_at)}</a
          >
          {point.formula_name}, <span class="numeral"><Qty {kind} value={point.value} /></span>: {why.join(
            "; ",
          )}
        </li>
      {/each}
    </ul>
  {/if}
</section>
