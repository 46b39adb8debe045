<!-- A flat piece in plan and section, raw and cooked, over its bread, to scale; its raw edge can be dragged. -->
<script lang="ts">
  import type { Evaluation, Formula, Kitchen } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import CutMeat from "./CutMeat.svelte";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";
  import { dimpledSection, raggedCircle } from "./outlines";
  import ScaleBar, { coinRoom } from "./ScaleBar.svelte";

  interface Props {
    bench: Bench;
    shape: Evaluation["shape"];
    bread: Kitchen["buns"][number] | undefined;
    stacked: number;
    look: Formula["shape"];
  }
  let { bench, shape, bread, stacked, look }: Props = $props();
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);

  const raw = $derived(shape.raw_diameter_mm);
  const bun = $derived(shape.bun_diameter_mm);
  const deep = $derived(bread?.depth_mm ?? 0);
  const wide = $derived(deep > 0 ? (bread?.diameter_mm ?? bun) : bun);
  const cooked = $derived(shape.cooked_diameter_mm);
  const t = $derived(shape.thickness_mm);
  const ct = $derived(shape.cooked_thickness_mm.usual);
  const layers = $derived(Math.min(4, stacked));
  const flat = $derived(bread?.kind === "tortilla" || bread?.kind === "flatbread");
  const spread = $derived(shape.form === "spread");
  const crumb = $derived(bread?.kind === "flatbread" ? 9 : bread?.kind === "tortilla" ? 3 : 14);
  const free = $derived(!spread && !shape.mould_key);

  // One scale for both views, which stands still while the edge is held.
  let width = $state(560);
  let held = $state<number | null>(null);
  const narrow = $derived(width < 440);
  const widest = $derived(held ?? Math.max(raw, wide, deep, 60));
  const px = $derived(
    narrow ? (width - 30) / (widest + 8) : Math.min((width - 56) / (widest * 2 + 8), 272 / (widest + 4), 3.2),
  );
  const plan = $derived(widest * px + 12);
  const cx = $derived((widest * px) / 2 + 4);
  const cy = $derived((widest * px) / 2 + 4);
  const sx = $derived(narrow ? cx : plan + 34 + (widest * px) / 2);
  const rise = $derived((shape.dimple_size?.rim_rise_mm ?? 0) * px);
  const rawBase = $derived((narrow ? plan + 22 : 18) + Math.max(t, shape.ball_mm) * px + rise);
  const under = $derived(rawBase + (spread ? crumb * px : 0));
  const stackBase = $derived(under + 58 + layers * ct * px + (bun && !flat ? 16 * px : 0));
  const low = $derived(stackBase + (bun ? crumb * px : 0) + 24);
  const height = $derived(Math.max(plan, low) + (bun ? 34 : 14 + coinRoom(px)));
  const r = (across: number) => (across / 2) * px;
  const label = $derived(
    `Piece to scale: raw ${mm(raw)} across and ${mm(t)} thick; cooked ${mm(cooked.low, cooked.high)} across` +
      (bun ? `; ${shape.bun_name}.` : "; no bread.") +
      (shape.dimple_size ? ` Dimple ${mm(shape.dimple_size.diameter_mm)} across.` : "") +
      (shape.filling
        ? ` Filling ${mm(shape.filling.diameter_mm)} across, rim ${mm(shape.filling.rim_mm)}.`
        : ""),
  );
  const bounds = $derived(bench.ranges?.diameter);
  function drag(at: number): void {
    const across = Math.round((2 * (at - cx)) / px);
    if (across > 25) bench.edit({ kind: "set", figure: "diameter", value: across, item: "" });
  }
</script>

{#snippet breadOutline(filled: boolean)}
  {@const fill = filled ? "#e2b977" : "none"}
  {@const stroke = filled ? "none" : "#e2b977"}
  {#if deep > 0}
    <rect
      x={cx - r(wide)}
      y={cy - r(deep)}
      width={wide * px}
      height={deep * px}
      rx={5 * px}
      {fill}
      {stroke}
      stroke-width="2.4"
    />
  {:else if bun > 0}<circle {cx} {cy} r={r(bun)} {fill} {stroke} stroke-width="2.4" />{/if}
{/snippet}

<div class="relative" bind:clientWidth={width}>
  <svg {width} {height} class="block select-none" role="img" aria-label={label}>
    <defs>
      <CutMeat id="raw-cut" />
    </defs>
    <!-- Plan -->
    {@render breadOutline(true)}
    {#if look.edges === "ragged" && !shape.mould_key}
      <path d={raggedCircle(cx, cy, r(raw))} fill="url(#raw-cut)" />
    {:else}<circle {cx} {cy} r={r(raw)} fill="url(#raw-cut)" />{/if}
    {#if shape.mould_key}<circle
        {cx}
        {cy}
        r={r(raw) + 2}
        fill="none"
        stroke="#586269"
        stroke-width="3.5"
      />{/if}
    <circle {cx} {cy} r={r(cooked.high)} fill="#4a2b20" opacity="0.45" />
    <circle {cx} {cy} r={r(cooked.low)} fill="#4a2b20" opacity="0.75" />
    <circle
      {cx}
      {cy}
      r={r(cooked.usual)}
      fill="none"
      stroke="#fff"
      stroke-width="1.6"
      stroke-dasharray="6 4"
    />
    {#if shape.filling}
      <circle {cx} {cy} r={r(shape.filling.diameter_mm)} fill="none" stroke="#f3d98c" stroke-width="2.2" />
    {:else if shape.dimple_size}
      <circle {cx} {cy} r={r(shape.dimple_size.diameter_mm)} fill="none" stroke="#fff" opacity="0.55" />
    {/if}
    {@render breadOutline(false)}
    <g text-anchor="middle" fill="#fff">
      <text x={cx} y={cy - 4} class="text-[17px] numeral">{mm(cooked.low, cooked.high)}</text>
      <text x={cx} y={cy + 13} class="text-[12.5px]">cooked</text>
    </g>

    <!-- Section, raw -->
    {#if shape.dimple_size}
      <path
        d={dimpledSection(sx - r(raw), rawBase, raw * px, t * px, {
          across: shape.dimple_size.diameter_mm * px,
          deep: shape.dimple_size.depth_mm * px,
          rise: shape.dimple_size.rim_rise_mm * px,
        })}
        fill="url(#raw-cut)"
      />
    {:else}
      <rect
        x={sx - r(raw)}
        y={rawBase - t * px}
        width={raw * px}
        height={t * px}
        rx={Math.min(6, (t * px) / 3)}
        fill="url(#raw-cut)"
      />
    {/if}
    {#if shape.ball_mm > 0}
      <circle
        cx={sx}
        cy={rawBase - r(shape.ball_mm)}
        r={r(shape.ball_mm)}
        class="stroke-quiet"
        fill="none"
        stroke-dasharray="3 4"
      />
      <text x={sx + r(shape.ball_mm) + 6} y={rawBase - r(shape.ball_mm) - 4} class="fill-quiet text-[12px]"
        >the ball, {mm(shape.ball_mm)}</text
      >
    {/if}
    {#if shape.filling}
      {@const w = r(shape.filling.diameter_mm)}
      {@const h = shape.filling.thickness_mm * px}
      <path
        d={`M${sx - r(raw)} ${rawBase - (t * px) / 2}H${sx + r(raw)}`}
        stroke="#f3d98c"
        stroke-dasharray="4 3"
      />
      <rect x={sx - w} y={rawBase - (t * px) / 2 - h / 2} width={w * 2} height={h} rx="2" fill="#f0c85a" />
    {/if}
    {#if look.papers}
      <path
        d={`M${sx - r(raw) - 8} ${rawBase - t * px - rise - 1.5}h${raw * px + 16}M${sx - r(raw) - 8} ${rawBase + 1.5}h${raw * px + 16}`}
        stroke="#b9b29f"
        stroke-width="2"
      />
    {/if}
    {#if spread}
      <rect x={sx - r(bun)} y={rawBase} width={bun * px} height={crumb * px} rx="2" fill="#e2b977" />
    {/if}
    <path
      d={`M${sx - r(raw)} ${under + 6}v7M${sx - r(raw)} ${under + 9.5}h${raw * px}M${sx + r(raw)} ${under + 6}v7`}
      class="stroke-quiet"
      fill="none"
    />
    <text x={sx} y={under + 27} text-anchor="middle" class="fill-base-content text-[13px]"
      >raw: {mm(raw)} across, {mm(t)} thick</text
    >

    <!-- Section, cooked -->
    {#if bun > 0}
      <rect
        x={sx - r(wide)}
        y={stackBase}
        width={wide * px}
        height={crumb * px}
        rx={flat ? 2 : 4 * px}
        fill="#e2b977"
        stroke={flat ? "none" : "#8a5a14"}
      />
    {/if}
    {#each { length: layers }, at (at)}
      {@const y = stackBase - (at + 1) * ct * px - at * 2}
      <rect
        x={sx - r(cooked.high)}
        {y}
        width={cooked.high * px}
        height={ct * px}
        rx={Math.min(6, (ct * px) / 3)}
        fill="#4a2b20"
        opacity="0.35"
      />
      <rect
        x={sx - r(cooked.usual)}
        {y}
        width={cooked.usual * px}
        height={ct * px}
        rx={Math.min(6, (ct * px) / 3)}
        fill="#4a2b20"
      />
    {/each}
    {#if bun > 0 && !flat}
      {@const top = stackBase - layers * (ct * px + 2)}
      {@const w = wide * px}
      {#if deep > 0}
        <rect
          x={sx - w / 2}
          y={top - crumb * px - 2}
          width={w}
          height={crumb * px}
          rx={3 * px}
          fill="none"
          stroke="#8a5a14"
          stroke-dasharray="5 4"
        />
      {:else}
        <path
          d={`M${sx - w / 2} ${top - 2}h${w}c0 ${-17 * px} ${-w} ${-17 * px} ${-w} 0z`}
          fill="none"
          stroke="#8a5a14"
          stroke-dasharray="5 4"
        />
      {/if}
    {/if}
    <text x={sx} y={low - 6} text-anchor="middle" class="fill-base-content text-[13px]"
      >cooked: {mm(shape.cooked_thickness_mm.low, shape.cooked_thickness_mm.high)} thick{bun
        ? `, on ${mm(bun)}`
        : ""}</text
    >
    <ScaleBar
      x={4}
      y={height - 5}
      {px}
      coin={!bun}
      note={narrow ? "dashed: cooked, usual" : `${bun ? `${shape.bun_name} · ` : ""}dashed: cooked, usual`}
    />
  </svg>
  {#if free}
    <DragHandle
      label="Raw diameter on the drawing"
      low={bounds?.low ?? 20}
      high={bounds?.high ?? 400}
      now={Math.round(raw)}
      text={mm(raw)}
      left={cx + r(raw)}
      top={cy - 24}
      height={48}
      ondrag={drag}
      onhold={(on) => (held = on ? Math.max(raw * 1.15, wide, 60) : null)}
      onnudge={(steps) => bench.edit({ kind: "nudge", figure: "diameter", steps, item: "" })}
    />
  {/if}
</div>
