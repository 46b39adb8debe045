<!-- The piece in plan and section, raw and cooked, over its bun, to scale with a bar. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  let { shape }: { shape: Evaluation["shape"] } = $props();
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);

  const widest = $derived(Math.max(shape.raw_diameter_mm, shape.bun_diameter_mm, 60));
  const view = $derived({ w: widest * 2.32, h: Math.max(widest + 34, 120) });
  const cx = $derived(widest / 2 + 4);
  const cy = $derived(widest / 2 + 6);
  const sx = $derived(widest * 1.66);
  const base = $derived(cy + 14);
  const t = $derived(shape.thickness_mm);
  const cookedD = $derived(shape.cooked_diameter_mm.usual);
  const barMm = $derived(units.system === "us" ? 50.8 : 50);
  const text = $derived(widest / 26);
  const label = $derived(
    `Piece to scale: raw ${mm(shape.raw_diameter_mm)} across and ${mm(t)} thick; cooked ${mm(shape.cooked_diameter_mm.low, shape.cooked_diameter_mm.high)} across` +
      (shape.bun_diameter_mm ? `; bun ${mm(shape.bun_diameter_mm)}.` : "; no bun."),
  );
</script>

<svg viewBox={`0 0 ${view.w} ${view.h}`} class="block max-h-[19rem] w-full" role="img" aria-label={label}>
  <defs>
    <pattern id="raw-cut" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(38)">
      <rect width="5" height="5" class="fill-lean" /><path d="M0 0V5" stroke="#8d3345" stroke-width="1.6" />
    </pattern>
  </defs>
  <!-- plan -->
  {#if shape.bun_diameter_mm > 0}
    <circle {cx} {cy} r={shape.bun_diameter_mm / 2} fill="#e2b977" />
  {/if}
  <circle
    {cx}
    {cy}
    r={shape.raw_diameter_mm / 2}
    fill="url(#raw-cut)"
    opacity={shape.bun_diameter_mm > shape.raw_diameter_mm ? 1 : 0.9}
  />
  <circle {cx} {cy} r={shape.cooked_diameter_mm.high / 2} fill="#4a2b20" opacity="0.35" />
  <circle {cx} {cy} r={shape.cooked_diameter_mm.low / 2} fill="#4a2b20" opacity="0.62" />
  <circle
    {cx}
    {cy}
    r={cookedD / 2}
    fill="none"
    stroke="#fff"
    stroke-width={widest / 130}
    stroke-dasharray={`${widest / 40} ${widest / 60}`}
  />
  {#if shape.bun_diameter_mm > 0}
    <circle
      {cx}
      {cy}
      r={shape.bun_diameter_mm / 2}
      fill="none"
      stroke="#8a5a14"
      stroke-width={widest / 100}
    />
  {/if}
  <g font-size={text} class="font-semibold" text-anchor="middle">
    <text x={cx} y={cy - text * 0.3} fill="#fff">cooked {mm(cookedD)}</text>
    <text x={cx} y={cy + text * 1.1} fill="#fff" font-weight="400">raw {mm(shape.raw_diameter_mm)}</text>
  </g>
  <!-- section: raw above, bun below -->
  <g>
    {#if shape.dimple}
      <path
        d={`M${sx - shape.raw_diameter_mm / 2} ${base - 34 - t}h${shape.raw_diameter_mm * 0.3}q${shape.raw_diameter_mm * 0.2} ${t * 0.62} ${shape.raw_diameter_mm * 0.4} 0h${shape.raw_diameter_mm * 0.3}v${t}h${-shape.raw_diameter_mm}z`}
        fill="url(#raw-cut)"
      />
    {:else}
      <rect
        x={sx - shape.raw_diameter_mm / 2}
        y={base - 34 - t}
        width={shape.raw_diameter_mm}
        height={t}
        rx={Math.min(3, t / 3)}
        fill="url(#raw-cut)"
      />
    {/if}
    <path
      d={`M${sx - shape.raw_diameter_mm / 2} ${base - 28}H${sx + shape.raw_diameter_mm / 2}`}
      stroke="#586269"
      stroke-width="0.7"
    />
    <text x={sx} y={base - 28 + text * 1.15} font-size={text} text-anchor="middle" class="fill-quiet"
      >raw, {mm(t)} thick</text
    >
    {#if shape.bun_diameter_mm > 0}
      <path
        d={`M${sx - shape.bun_diameter_mm / 2} ${base + 8}h${shape.bun_diameter_mm}v6q0 6 -6 6h${12 - shape.bun_diameter_mm}q-6 0 -6 -6z`}
        fill="#e2b977"
        stroke="#8a5a14"
        stroke-width="0.8"
      />
      <rect
        x={sx - cookedD / 2}
        y={base + 8 - t * 1.08}
        width={cookedD}
        height={t * 1.08}
        rx={Math.min(3, t / 3)}
        fill="#4a2b20"
      />
      <text x={sx} y={base + 20 + text * 1.3} font-size={text} text-anchor="middle" class="fill-quiet"
        >cooked, on its bun of {mm(shape.bun_diameter_mm)}</text
      >
    {/if}
  </g>
  <!-- scale bar -->
  <g transform={`translate(${sx - barMm / 2} ${view.h - 6})`}>
    <path d={`M0 -4V0H${barMm}V-4`} fill="none" stroke="#1b2327" stroke-width="0.9" />
    <text x={barMm / 2} y={-2.4} font-size={text * 0.9} text-anchor="middle" class="fill-base-content"
      >{mm(barMm)}</text
    >
  </g>
</svg>
