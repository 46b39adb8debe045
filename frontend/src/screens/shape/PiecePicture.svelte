<!-- The piece in plan and section, raw and cooked, over its bun, to scale with a bar. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  let { shape, stacked }: { shape: Evaluation["shape"]; stacked: number } = $props();
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);

  const raw = $derived(shape.raw_diameter_mm);
  const bun = $derived(shape.bun_diameter_mm);
  const cooked = $derived(shape.cooked_diameter_mm);
  const t = $derived(shape.thickness_mm);
  const layers = $derived(Math.min(4, stacked));
  const widest = $derived(Math.max(raw, bun, 60));

  // One scale for both views: pixels a millimetre, from the room there is.
  let width = $state(560);
  const narrow = $derived(width < 440);
  const px = $derived(
    narrow ? (width - 8) / (widest + 8) : Math.min((width - 40) / (widest * 2 + 6), 300 / (widest + 4)),
  );
  const plan = $derived(widest * px + 8);
  const sectionHeight = $derived(narrow ? (t * (layers + 1) + 60) * px + 90 : 0);
  const height = $derived(Math.max(plan, 230) + sectionHeight + 8);
  const cx = $derived((widest * px) / 2 + 4);
  const cy = $derived((widest * px) / 2 + 4);
  const sx = $derived(narrow ? cx : plan + 28 + (widest * px) / 2);
  const rawTop = $derived(narrow ? plan + 16 : Math.max(12, 46 - t * px * 0.5));
  const stackBase = $derived(rawTop + t * px + 62 + layers * t * px + (bun ? 16 * px : 0));
  const bar = $derived((units.system === "us" ? 50.8 : 50) * px);
  const label = $derived(
    `Piece to scale: raw ${mm(raw)} across and ${mm(t)} thick; cooked ${mm(cooked.low, cooked.high)} across` +
      (bun ? `; bun ${mm(bun)}.` : "; no bun."),
  );
</script>

<div bind:clientWidth={width}>
  <svg {width} {height} class="block" role="img" aria-label={label}>
    <defs>
      <pattern id="raw-cut" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(38)">
        <rect width="8" height="8" class="fill-lean" /><path d="M0 0V8" stroke="#8d3345" stroke-width="2.6" />
      </pattern>
    </defs>
    {#if bun > 0}<circle {cx} {cy} r={(bun / 2) * px} fill="#e2b977" />{/if}
    <circle {cx} {cy} r={(raw / 2) * px} fill="url(#raw-cut)" />
    <circle {cx} {cy} r={(cooked.high / 2) * px} fill="#4a2b20" opacity="0.45" />
    <circle {cx} {cy} r={(cooked.low / 2) * px} fill="#4a2b20" opacity="0.75" />
    <circle
      {cx}
      {cy}
      r={(cooked.usual / 2) * px}
      fill="none"
      stroke="#fff"
      stroke-width="1.6"
      stroke-dasharray="6 4"
    />
    {#if bun > 0}<circle {cx} {cy} r={(bun / 2) * px} fill="none" stroke="#e2b977" stroke-width="2.4" />{/if}
    <g text-anchor="middle" fill="#fff">
      <text x={cx} y={cy - 12} class="text-[17px] numeral">{mm(cooked.low, cooked.high)}</text>
      <text x={cx} y={cy + 5} class="text-[12.5px]">cooked</text>
      {#if bun > 0}<text x={cx} y={cy + 26} class="text-[12.5px]" fill="#f0d3a0">bun {mm(bun)}</text>{/if}
    </g>

    {#if shape.dimple}
      {@const w = raw * px}
      <path
        d={`M${sx - w / 2} ${rawTop}h${w * 0.3}q${w * 0.2} ${t * px * 0.62} ${w * 0.4} 0h${w * 0.3}v${t * px}h${-w}z`}
        fill="url(#raw-cut)"
      />
    {:else}
      <rect
        x={sx - (raw / 2) * px}
        y={rawTop}
        width={raw * px}
        height={t * px}
        rx={Math.min(6, (t * px) / 3)}
        fill="url(#raw-cut)"
      />
    {/if}
    <path
      d={`M${sx - (raw / 2) * px} ${rawTop + t * px + 5}v7M${sx - (raw / 2) * px} ${rawTop + t * px + 8.5}h${raw * px}M${sx + (raw / 2) * px} ${rawTop + t * px + 5}v7`}
      class="stroke-quiet"
      fill="none"
    />
    <text x={sx} y={rawTop + t * px + 25} text-anchor="middle" class="fill-base-content text-[13px]"
      >raw: {mm(raw)} across, {mm(t)} thick</text
    >

    {#each { length: layers }, at (at)}
      <rect
        x={sx - (cooked.usual / 2) * px}
        y={stackBase - (at + 1) * t * px * 1.06 - at * 2}
        width={cooked.usual * px}
        height={t * px * 1.06}
        rx={Math.min(6, (t * px) / 3)}
        fill="#4a2b20"
      />
    {/each}
    {#if bun > 0}
      {@const w = bun * px}
      {@const top = stackBase - layers * (t * px * 1.06 + 2)}
      <path
        d={`M${sx - w / 2} ${stackBase + 2}h${w}v${7 * px}q0 ${5 * px} ${-6 * px} ${5 * px}h${12 * px - w}q${-6 * px} 0 ${-6 * px} ${-5 * px}z`}
        fill="#e2b977"
        stroke="#8a5a14"
      />
      <path
        d={`M${sx - w / 2} ${top - 2}h${w}c0 ${-17 * px} ${-w} ${-17 * px} ${-w} 0z`}
        fill="none"
        stroke="#8a5a14"
        stroke-dasharray="5 4"
      />
    {/if}
    <text
      x={sx}
      y={stackBase + (bun ? 12 * px : 0) + 20}
      text-anchor="middle"
      class="fill-base-content text-[13px]">cooked{bun ? `, on a bun of ${mm(bun)}` : ""}</text
    >
    <g transform={`translate(${sx - bar / 2} ${height - 6})`}>
      <path d={`M0 -6V0H${bar}V-6`} fill="none" class="stroke-base-content" stroke-width="1.4" />
      <text x={bar / 2} y={-6} text-anchor="middle" class="fill-base-content text-[12px]"
        >{mm(units.system === "us" ? 50.8 : 50)}</text
      >
    </g>
  </svg>
</div>
