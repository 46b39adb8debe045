<!-- Readings in order, with the target's tolerance and, from five on, the limits that their own spread gives. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Weighing } from "../../lib/api/client";
  import { fine, reading as g } from "../../lib/grams";

  let { running, plan }: { running: Weighing["running"]; plan: Weighing["plan"] } = $props();
  let width = $state(520);
  const height = 190;
  const counted = $derived(running.records.filter((r) => r.number > 0));
  // A piece that is meant to be heavier is brought to the plain target, as the core does for its limits.
  const points = $derived(
    counted.map((r) => ({ number: r.number, g: plan.piece_g + r.off_g, good: r.verdict === "good" })),
  );
  const shown = $derived(points.slice(-60));
  const chart = $derived(running.chart);
  const span = $derived([
    plan.piece_g - plan.tolerance_g * 2,
    plan.piece_g + plan.tolerance_g * 2,
    ...shown.map((p) => p.g),
    ...(chart.upper_g == null ? [] : [chart.upper_g, chart.lower_g ?? chart.upper_g]),
  ]);
  const y = $derived(scaleLinear([Math.min(...span) - 0.5, Math.max(...span) + 0.5], [height - 22, 8]));
  const first = $derived(shown[0]?.number ?? 1);
  const room = $derived(Math.max(Math.min(60, plan.pieces), shown.length, 5));
  const x = $derived(scaleLinear([first - 0.5, first + room - 0.5], [52, width - 8]));
  const flagged = $derived(new Set(running.broken.map((b) => b.at)));
  const label = $derived(
    `Control chart of ${counted.length} readings` +
      (chart.mean_g == null ? "" : `, mean ${fine(chart.mean_g)}`) +
      (running.broken.length ? `, ${running.broken.length} rules broken` : ""),
  );
</script>

<div class="mt-2" bind:clientWidth={width}>
  <svg {width} {height} class="block" role="img" aria-label={label}>
    <rect
      x="52"
      y={y(plan.piece_g + plan.tolerance_g)}
      width={width - 60}
      height={y(plan.piece_g - plan.tolerance_g) - y(plan.piece_g + plan.tolerance_g)}
      class="fill-success"
      opacity="0.22"
    />
    <path d={`M52 ${y(plan.piece_g)}H${width - 8}`} class="stroke-base-content" opacity="0.8" />
    <text x="46" y={y(plan.piece_g) + 4} text-anchor="end" class="fill-base-content text-[12px]"
      >{g(plan.piece_g)}</text
    >
    {#if chart.upper_g != null && chart.lower_g != null && chart.mean_g != null}
      {#each [{ at: chart.upper_g, name: "+3σ" }, { at: chart.lower_g, name: "−3σ" }] as limit (limit.name)}
        <path d={`M52 ${y(limit.at)}H${width - 8}`} class="stroke-error" stroke-dasharray="5 5" />
        <text
          x={width - 10}
          y={y(limit.at) + (limit.name === "+3σ" ? -4 : 13)}
          text-anchor="end"
          class="fill-error text-[12px]">{limit.name}</text
        >
      {/each}
      <path d={`M52 ${y(chart.mean_g)}H${width - 8}`} class="stroke-info" stroke-dasharray="2 4" />
    {/if}
    {#if shown.length > 1}
      <path
        d={`M${shown.map((p) => `${x(p.number)} ${y(p.g)}`).join("L")}`}
        fill="none"
        class="stroke-base-content"
        opacity="0.55"
      />
    {/if}
    {#each shown as p (p.number)}
      <circle
        cx={x(p.number)}
        cy={y(p.g)}
        r={flagged.has(p.number) ? 7 : 4.5}
        class={p.good ? "fill-success" : "fill-warning"}
        stroke={flagged.has(p.number) ? "#ff8f80" : "none"}
        stroke-width="2.5"
      />
    {/each}
    <text x="52" y={height - 4} class="fill-base-content text-[12px]" opacity="0.8"
      >piece {first} →{chart.upper_g == null
        ? " limits from five readings on"
        : " dotted: mean; dashed: mean ± 3σ"}</text
    >
  </svg>
</div>
