<!-- A ball or a loaf from the side and cut across, raw with the cooked size inside it, to scale with a bar. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  let { shape, filled }: { shape: Evaluation["shape"]; filled: boolean } = $props();
  let width = $state(560);
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);
  const ball = $derived(shape.form === "ball");
  const long = $derived(shape.length_mm);
  const wide = $derived(shape.width_mm);
  const tall = $derived(shape.thickness_mm);
  const left = $derived(shape.cooked_diameter_mm.usual / shape.raw_diameter_mm);
  const narrow = $derived(width < 440);
  const room = $derived(ball ? wide * 2.4 + 20 : narrow ? long + 10 : long + wide + 46);
  const px = $derived(Math.min((width - 16) / room, 210 / tall, 2.4));
  const base = $derived(tall * px + 16);
  const cut = $derived(narrow && !ball ? { x: 4, base: base * 2 + 34 } : { x: long * px + 40, base });
  const height = $derived(cut.base + 72);
  const bar = $derived((units.system === "us" ? 50.8 : 50) * px);

  function outline(w: number, h: number, x: number, y: number): string {
    if (shape.form === "loaf")
      return (
        `M${x} ${y}V${y - h * 0.45}C${x} ${y - h * 1.06} ${x + w * 0.16} ${y - h} ${x + w * 0.26} ${y - h}` +
        `H${x + w * 0.74}C${x + w * 0.84} ${y - h} ${x + w} ${y - h * 1.06} ${x + w} ${y - h * 0.45}V${y}Z`
      );
    return `M${x} ${y}V${y - h}H${x + w}V${y}Z`;
  }
  const label = $derived(
    ball
      ? `Ball to scale: raw ${mm(long)} across, cooked ${mm(shape.cooked_diameter_mm.low, shape.cooked_diameter_mm.high)}.`
      : `Loaf to scale: raw ${mm(long)} long, ${mm(wide)} wide, ${mm(tall)} high; cooked ${mm(shape.cooked_diameter_mm.low, shape.cooked_diameter_mm.high)} long.`,
  );
</script>

<div bind:clientWidth={width}>
  <svg {width} {height} class="block" role="img" aria-label={label}>
    <defs>
      <pattern
        id="block-cut"
        width="8"
        height="8"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(38)"
      >
        <rect width="8" height="8" class="fill-lean" /><path d="M0 0V8" stroke="#8d3345" stroke-width="2.6" />
      </pattern>
    </defs>
    {#if ball}
      {@const r = (long / 2) * px}
      <circle cx={r + 8} cy={base - r} {r} fill="url(#block-cut)" />
      <circle cx={r * 3.4 + 8} cy={base - r * left} r={r * left} fill="#4a2b20" />
      <text x={r + 8} y={base + 20} text-anchor="middle" class="fill-base-content text-[13px]"
        >raw {mm(long)}</text
      >
      <text x={r * 3.4 + 8} y={base + 20} text-anchor="middle" class="fill-base-content text-[13px]"
        >cooked {mm(shape.cooked_diameter_mm.low, shape.cooked_diameter_mm.high)}</text
      >
    {:else}
      {#each [{ w: long, x: 4, base, name: `from the side, ${mm(long)} × ${mm(tall)}` }, { w: wide, x: cut.x, base: cut.base, name: `cut across, ${mm(wide)}` }] as view, at (at)}
        <path
          d={outline(view.w * px, tall * px, view.x, view.base)}
          fill={at ? "url(#block-cut)" : "#7b2233"}
        />
        <path
          d={outline(
            view.w * px * left,
            tall * px * left,
            view.x + (view.w * px * (1 - left)) / 2,
            view.base,
          )}
          fill="#4a2b20"
          opacity="0.55"
          stroke="#fff"
          stroke-dasharray="6 4"
        />
        {#if filled && at}
          <circle
            cx={view.x + (view.w * px) / 2}
            cy={view.base - tall * px * 0.45}
            r={21 * px}
            fill="#fdfbf3"
          />
          <circle
            cx={view.x + (view.w * px) / 2}
            cy={view.base - tall * px * 0.45}
            r={11 * px}
            class="fill-fat-deep"
          />
        {/if}
        {#if shape.form === "tin" || shape.form === "tray"}
          <path
            d={`M${view.x - 3} ${view.base - tall * px - 12}V${view.base + 2}H${view.x + view.w * px + 3}V${view.base - tall * px - 12}`}
            fill="none"
            stroke="#586269"
            stroke-width="3"
          />
        {/if}
        <text
          x={view.x + (view.w * px) / 2}
          y={view.base + 20}
          text-anchor="middle"
          class="fill-base-content text-[13px]">{view.name}</text
        >
      {/each}
    {/if}
    <g transform={`translate(6 ${height - 8})`}>
      <path d={`M0 -6V0H${bar}V-6`} fill="none" class="stroke-base-content" stroke-width="1.4" />
      <text x={bar + 8} y="0" class="fill-base-content text-[12px]"
        >{mm(units.system === "us" ? 50.8 : 50)}{ball ? "" : " · dashed: cooked, usual"}</text
      >
    </g>
  </svg>
</div>
