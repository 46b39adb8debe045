<!--
  The blend to scale. Width of a strip: its share. Height of its pale part: its fat. So pale area is grams of fat,
  and the line is where it would level out: the blend, with its uncertainty, beside the style's band and the legal limit.
-->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import { room } from "../../lib/room.svelte";
  import { units } from "../../lib/units.svelte";
  import EdgeHandle from "./EdgeHandle.svelte";

  let { bench, evaluation }: { bench: Bench; evaluation: Evaluation } = $props();

  const height = $derived(262 + room(0.6, 240));
  const axis = 40;
  let width = $state(720);
  const margin = $derived(width < 520 ? 88 : 118);

  const blend = $derived(evaluation.blend);
  const top = $derived(Math.min(1, Math.max(0.45, ...blend.parts.map((p) => p.fat_high_frac)) + 0.03));
  const x = $derived(scaleLinear([0, 1], [axis, Math.max(axis + 80, width - margin)]));
  const y = $derived(scaleLinear([0, top], [height, 14]));
  const ticks = $derived(y.ticks(5));
  const right = $derived(x(1));
  const strips = $derived.by(() => {
    let from = 0;
    return blend.parts.map((part) => {
      const strip = { part, from, to: from + part.share_frac };
      from += part.share_frac;
      return strip;
    });
  });
  const limit = $derived(evaluation.name_limit_frac);
  const pct = (value: number, high?: number) => amount({ kind: "frac", value, high }, units);
  const reach = $derived(
    pct(
      Math.min(...blend.parts.map((p) => p.fat_usual_frac)),
      Math.max(...blend.parts.map((p) => p.fat_usual_frac)),
    ),
  );
  const band = $derived(evaluation.style.fat_band_frac);
  // The uncertainty as a shape: how likely each fat is, leaning on the right edge.
  const uncertainty = $derived(
    blend.curve.length > 1
      ? `M${right} ${y(blend.curve[0]?.[0] ?? 0)}` +
          blend.curve.map(([fat, likely]) => `L${right - likely * 34} ${y(fat)}`).join("") +
          `L${right} ${y(blend.curve.at(-1)?.[0] ?? 0)}Z`
      : "",
  );
  const label = $derived(
    `Blend of ${blend.parts.map((p) => `${p.name} ${pct(p.share_frac)}`).join(", ")}: fat ${pct(blend.fat_frac)}, ` +
      `nine batches in ten between ${pct(blend.fat_low_frac, blend.fat_high_frac)}; usual for this style ${pct(band[0], band[1])}.`,
  );
</script>

<div class="relative" bind:clientWidth={width}>
  <svg {width} height={height + 26} class="block select-none" role="img" aria-label={label}>
    <defs>
      <pattern id="lean" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(38)">
        <rect width="7" height="7" class="fill-lean" />
        <path d="M0 0V7" stroke="#8d3345" stroke-width="2.2" />
      </pattern>
      <pattern id="fat" width="11" height="9" patternUnits="userSpaceOnUse">
        <rect width="11" height="9" class="fill-fat" />
        <circle cx="3" cy="3" r="0.8" fill="#dcc48d" /><circle cx="8.5" cy="7" r="0.8" fill="#dcc48d" />
      </pattern>
    </defs>
    {#each ticks as tick (tick)}
      <text x={axis - 8} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-[12px]"
        >{Math.round(tick * 100)}</text
      >
      <path d={`M${axis - 4} ${y(tick)}H${axis}`} class="stroke-base-300" />
    {/each}
    <text x={axis - 8} y={10} text-anchor="end" class="fill-quiet text-[11px]">% fat</text>

    {#each strips as { part, from, to } (part.meat)}
      {@const left = x(from)}
      {@const wide = Math.max(0, x(to) - left)}
      <rect x={left} y={y(top)} width={wide} height={height - y(top)} fill="url(#lean)" />
      <rect
        x={left}
        y={y(part.fat_usual_frac)}
        width={wide}
        height={height - y(part.fat_usual_frac)}
        fill="url(#fat)"
      />
      <path d={`M${left} ${y(part.fat_usual_frac)}h${wide}`} class="stroke-lean-deep" stroke-width="1.5" />
      {#if wide > 74}
        <text x={left + 9} y={y(top) + 24} class="fill-white text-[20px] numeral">{pct(part.share_frac)}</text
        >
        <text x={left + 9} y={y(top) + 42} class="fill-white/90 text-[13px]"
          >{amount({ kind: "mass_g", value: part.mass_g }, units)}</text
        >
        <text x={left + 9} y={height - 9} class="fill-base-content text-[13px] font-semibold"
          >{part.name.length * 7.2 < wide - 14
            ? part.name
            : `${part.name.slice(0, Math.max(3, Math.floor((wide - 22) / 7.4)))}…`}</text
        >
      {/if}
    {/each}

    <rect
      x={axis}
      y={y(blend.fat_high_frac)}
      width={right - axis}
      height={Math.max(1, y(blend.fat_low_frac) - y(blend.fat_high_frac))}
      fill="#fff"
      opacity="0.34"
    />
    <path
      d={`M${axis} ${y(blend.fat_high_frac)}H${right}M${axis} ${y(blend.fat_low_frac)}H${right}`}
      class="stroke-primary"
      stroke-dasharray="2 4"
    />
    {#each strips as { part, from, to } (part.meat)}
      {@const left = x(from)}
      {@const wide = Math.max(0, x(to) - left)}
      {#if wide > 16}
        {@const mid = left + wide - Math.min(16, wide / 2)}
        <path
          d={`M${mid} ${y(part.fat_low_frac)}V${y(part.fat_high_frac)}M${mid - 5} ${y(part.fat_low_frac)}h10M${mid - 5} ${y(part.fat_high_frac)}h10`}
          stroke="#1b2327"
          stroke-width="5"
          stroke-opacity="0.18"
          fill="none"
        />
        <path
          d={`M${mid} ${y(part.fat_low_frac)}V${y(part.fat_high_frac)}M${mid - 5} ${y(part.fat_low_frac)}h10M${mid - 5} ${y(part.fat_high_frac)}h10`}
          stroke="#1b2327"
          stroke-width="1.75"
          fill="none"
        />
      {/if}
    {/each}
    <path d={uncertainty} class="fill-primary stroke-white" fill-opacity="0.55" stroke-width="1.2" />
    {#if limit != null && limit <= top}
      <path d={`M${axis} ${y(limit)}H${right + 8}`} stroke="#fff" stroke-width="3.4" opacity="0.65" />
      <path
        d={`M${axis} ${y(limit)}H${right + 8}`}
        class="stroke-error"
        stroke-width="1.6"
        stroke-dasharray="7 4"
      />
      <text x={right + 12} y={y(limit) + 4} class="fill-error text-[12px] font-semibold"
        >{width < 520 ? "limit" : "name limit"} {Math.round(limit * 100)}</text
      >
    {/if}
    <path d={`M${axis} ${y(blend.fat_frac)}H${right + 14}`} stroke="#fff" stroke-width="5" opacity="0.55" />
    <path d={`M${axis} ${y(blend.fat_frac)}H${right + 14}`} class="stroke-primary" stroke-width="2.6" />
    <rect
      x={right + 14}
      y={y(blend.fat_frac) - 13}
      width={width < 520 ? 58 : 78}
      height="26"
      rx="3"
      class="fill-primary"
    />
    <text
      x={right + (width < 520 ? 43 : 53)}
      y={y(blend.fat_frac) + 5}
      text-anchor="middle"
      class="fill-white text-[15px] numeral">{pct(blend.fat_frac)}{width < 520 ? "" : " fat"}</text
    >

    <path
      d={`M${right + 3} ${y(band[1])}h5V${y(band[0])}h-5`}
      class="stroke-warning"
      stroke-width="2"
      fill="none"
    />
    {#if Math.abs(y(band[0]) + 14 - y(blend.fat_frac)) > 26 || band[0] < blend.fat_frac}
      <text
        x={right + 12}
        y={Math.max(y(band[0]) + 14, y(blend.fat_frac) + 28)}
        class="fill-warning text-[12px] font-semibold"
        >usual {Math.round(band[0] * 100)}–{Math.round(band[1] * 100)}</text
      >
    {:else}
      <text
        x={right + 12}
        y={Math.min(y(band[1]) - 4, y(blend.fat_frac) - 18)}
        class="fill-warning text-[12px] font-semibold"
        >usual {Math.round(band[0] * 100)}–{Math.round(band[1] * 100)}</text
      >
    {/if}
    <text x={axis} y={height + 19} class="fill-quiet text-[12px]"
      >{width < 520
        ? `width: share · pale: fat · in reach ${reach}`
        : `width: share of the batch · pale: fat · whisker: nine deliveries in ten · line and hill: the blend, how likely · in reach ${reach}`}</text
    >
  </svg>
  {#each strips.slice(0, -1) as { part, to }, index (part.meat)}
    <EdgeHandle
      {bench}
      {index}
      at={to}
      x={x(to)}
      top={y(top)}
      {height}
      width={right - axis}
      left={axis}
      label={`Edge between ${part.name} and ${strips[index + 1]?.part.name ?? ""}`}
    />
  {/each}
</div>
