<!-- A ball raw and cooked, beside the scoop that makes it, to scale; its raw edge can be dragged. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import CutMeat from "./CutMeat.svelte";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";
  import ScaleBar, { coinRoom } from "./ScaleBar.svelte";

  interface Props {
    bench: Bench;
    shape: Evaluation["shape"];
  }
  let { bench, shape }: Props = $props();
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);
  const raw = $derived(shape.raw_diameter_mm);
  const cooked = $derived(shape.cooked_diameter_mm);
  const scoop = $derived(shape.scoop);
  const bowl = $derived(scoop?.bowl_mm ?? 0);
  let width = $state(560);
  let held = $state<number | null>(null);
  const big = $derived(held ?? raw);
  const across = $derived(big * 2 + bowl + 70);
  const px = $derived(Math.min((width - 40) / across, 190 / big, 4));
  const base = $derived(Math.max(big, bowl) * px + 14);
  const height = $derived(base + 36 + coinRoom(px));
  const cx = $derived((big * px) / 2 + 6);
  const at = $derived({ cooked: big * px * 1.5 + 44, scoop: big * px * 2 + 84 + (bowl * px) / 2 });
  const r = (d: number) => (d / 2) * px;
  const label = $derived(
    `Ball to scale: raw ${mm(raw)} across, cooked ${mm(cooked.low, cooked.high)}` +
      (scoop ? `; ${scoop.name} beside it.` : "."),
  );
  function drag(x: number): void {
    const wanted = Math.round((2 * (x - cx)) / px);
    if (wanted > 20) bench.edit({ kind: "set", figure: "diameter", value: wanted, item: "" });
  }
</script>

<div class="relative" bind:clientWidth={width}>
  <svg {width} {height} class="block select-none" role="img" aria-label={label}>
    <defs>
      <CutMeat id="ball-cut" />
    </defs>
    <circle {cx} cy={base - r(raw)} r={r(raw)} fill="url(#ball-cut)" />
    <circle cx={at.cooked} cy={base - r(cooked.high)} r={r(cooked.high)} fill="#4a2b20" opacity="0.45" />
    <circle cx={at.cooked} cy={base - r(cooked.low)} r={r(cooked.low)} fill="#4a2b20" opacity="0.8" />
    {#if scoop}
      {@const w = r(bowl)}
      <path
        d={`M${at.scoop - w} ${base - w}A${w} ${w} 0 0 0 ${at.scoop + w} ${base - w}Z`}
        fill="url(#ball-cut)"
        stroke="#586269"
        stroke-width="3"
      />
      <path
        d={`M${at.scoop + w + 1} ${base - w}h${Math.min(46, 22 * px)}`}
        stroke="#586269"
        stroke-width="7"
        stroke-linecap="round"
      />
    {/if}
    <g text-anchor="middle" class="fill-base-content text-[13px]">
      <text x={cx} y={base + 20}>raw {mm(raw)}</text>
      <text x={at.cooked} y={base + 20}>cooked {mm(cooked.low, cooked.high)}</text>
      {#if scoop}<text x={at.scoop} y={base + 20}>{scoop.name}</text>{/if}
    </g>
    <ScaleBar x={6} y={height - 5} {px} />
  </svg>
  <DragHandle
    label="Raw diameter on the drawing"
    low={20}
    high={400}
    now={Math.round(raw)}
    text={mm(raw)}
    left={cx + r(raw)}
    top={base - r(raw) - 24}
    height={48}
    ondrag={drag}
    onhold={(on) => (held = on ? raw * 1.25 : null)}
    onnudge={(steps) => bench.edit({ kind: "nudge", figure: "diameter", steps, item: "" })}
  />
</div>
