<!-- A loaf from above, from the side and cut across, with its tin, its eggs and its cooked size, to scale. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import CutMeat from "./CutMeat.svelte";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";
  import { loafAlong, loafSection } from "./outlines";
  import ScaleBar, { coinRoom } from "./ScaleBar.svelte";

  interface Props {
    bench: Bench;
    shape: Evaluation["shape"];
  }
  let { bench, shape }: Props = $props();
  const mm = (value: number, high?: number) => amount({ kind: "length_mm", value, high }, units);
  const long = $derived(shape.length_mm);
  const wide = $derived(shape.width_mm);
  const tall = $derived(shape.thickness_mm);
  const vessel = $derived(shape.vessel);
  const eggs = $derived(shape.eggs);
  const free = $derived(shape.form === "loaf");
  const left = $derived(shape.cooked_diameter_mm.usual / Math.max(1, shape.raw_diameter_mm));
  const tops = $derived(Math.max(tall, vessel?.height_mm ?? 0));

  let width = $state(560);
  let held = $state<number | null>(null);
  const narrow = $derived(width < 440);
  const longest = $derived(held ?? long);
  const px = $derived(
    Math.min(
      (width - 34) / (narrow ? longest + 6 : longest + wide + 24),
      narrow ? 9 : 330 / (wide + tops + 26),
      2.2,
    ),
  );
  const x0 = 6;
  const middle = $derived((wide / 2) * px + 8);
  const base = $derived(wide * px + 40 + tops * px + 22);
  const cut = $derived(narrow ? { x: x0, base: base + 34 + tops * px } : { x: x0 + longest * px + 36, base });
  const height = $derived((narrow ? cut.base : base) + 32 + coinRoom(px));
  // Walls of a tin lean in towards the bottom.
  const wall = $derived(
    vessel
      ? { along: (long - vessel.base_length_mm) / 2, across: (wide - vessel.base_width_mm) / 2 }
      : { along: 0, across: 0 },
  );
  function tinSide(x: number, at: number, across: number, lean: number): string {
    const h = (vessel?.height_mm ?? 0) * px;
    return `M${x - 4} ${at - h}h4l${lean * px} ${h}h${(across - 2 * lean) * px}l${lean * px} ${-h}h4`;
  }
  function filled(x: number, at: number, across: number, lean: number, high: number): string {
    const brim = Math.min(high, vessel?.height_mm ?? high);
    const share = vessel ? brim / vessel.height_mm : 1;
    const shift = lean * (1 - share) * px;
    const over = Math.max(0, high - brim) * px;
    const top = at - brim * px;
    return (
      `M${x + lean * px} ${at}L${x + shift} ${top}v${-over}` +
      `H${x + across * px - shift}v${over}L${x + across * px - lean * px} ${at}Z`
    );
  }
  const label = $derived(
    `Loaf to scale: raw ${mm(long)} long, ${mm(wide)} wide, ${mm(tall)} high; cooked ` +
      `${mm(shape.cooked_diameter_mm.low, shape.cooked_diameter_mm.high)} long.` +
      (vessel
        ? vessel.headspace_mm < 0
          ? ` It stands ${mm(-vessel.headspace_mm)} above the brim of ${shape.mould_name}.`
          : ` ${mm(vessel.headspace_mm)} below the brim of ${shape.mould_name}.`
        : "") +
      (eggs ? ` ${eggs.eggs} eggs in a row.` : ""),
  );
  function drag(at: number): void {
    const wanted = Math.round((at - x0) / px);
    if (wanted > 50) bench.edit({ kind: "set", figure: "length", value: wanted, item: "" });
  }
</script>

<div class="relative" bind:clientWidth={width}>
  <svg {width} {height} class="block select-none" role="img" aria-label={label}>
    <defs>
      <CutMeat id="block-cut" />
    </defs>
    <!-- From above -->
    {#if vessel}
      <rect
        x={x0 - 3}
        y={middle - (wide / 2) * px - 3}
        width={long * px + 6}
        height={wide * px + 6}
        rx="7"
        fill="none"
        stroke="#586269"
        stroke-width="3"
      />
      <rect x={x0} y={middle - (wide / 2) * px} width={long * px} height={wide * px} rx="5" fill="#7b2233" />
    {:else if free}
      <path d={loafAlong(x0, middle, long * px, wide * px, shape.end_mm * px, "above")} fill="#7b2233" />
    {:else}
      <rect x={x0} y={middle - (wide / 2) * px} width={long * px} height={wide * px} rx="5" fill="#7b2233" />
    {/if}
    {#each eggs ? { length: Math.min(eggs.eggs, 40) } : [], at (at)}
      {@const e = eggs as NonNullable<typeof eggs>}
      <ellipse
        cx={x0 + (long / 2 + (at - (e.eggs - 1) / 2) * e.egg_length_mm) * px}
        cy={middle}
        rx={(e.egg_length_mm / 2) * px}
        ry={(e.egg_width_mm / 2) * px}
        fill="none"
        stroke="#fdfbf3"
        stroke-dasharray="5 4"
      />
    {/each}
    {#if !vessel}
      <path
        d={free
          ? loafAlong(
              x0 + (long * px * (1 - left)) / 2,
              middle,
              long * px * left,
              wide * px * left,
              shape.end_mm * px * left,
              "above",
            )
          : `M${x0 + (long * px * (1 - left)) / 2} ${middle - (wide / 2) * px * left}h${long * px * left}v${wide * px * left}h${-long * px * left}Z`}
        fill="none"
        stroke="#fff"
        stroke-dasharray="6 4"
      />
    {/if}
    <text
      x={x0 + (long / 2) * px}
      y={middle + (wide / 2) * px + 19}
      text-anchor="middle"
      class="fill-base-content text-[13px]">from above, {mm(long)} × {mm(wide)}</text
    >
    <!-- From the side, and cut across -->
    {#each [{ x: x0, base, across: long, lean: wall.along, side: true, name: `from the side, ${mm(tall)} high` }, { x: cut.x, base: cut.base, across: wide, lean: wall.across, side: false, name: `cut, ${mm(wide)} × ${mm(tall)}` }] as view (view.name)}
      <path
        d={vessel
          ? filled(view.x, view.base, view.across, view.lean, tall)
          : free
            ? view.side
              ? loafAlong(view.x, view.base, long * px, tall * px, shape.end_mm * px, "side")
              : loafSection(view.x, view.base, wide * px, tall * px, shape.section_power)
            : `M${view.x} ${view.base}v${-tall * px}h${view.across * px}v${tall * px}Z`}
        fill={view.side ? "#7b2233" : "url(#block-cut)"}
      />
      {#if vessel && vessel.over_g > 0.5}
        <rect
          x={view.x - 4}
          y={view.base - tall * px}
          width={view.across * px + 8}
          height={(tall - vessel.height_mm) * px}
          class="fill-error"
          opacity="0.85"
        />
      {/if}
      {#if eggs}
        {@const ry = (eggs.egg_width_mm / 2) * px}
        {@const cy = view.base - (tall / 2) * px}
        {#if view.side}
          {#each { length: Math.min(eggs.eggs, 40) }, at (at)}
            {@const ex = view.x + (long / 2 + (at - (eggs.eggs - 1) / 2) * eggs.egg_length_mm) * px}
            <ellipse cx={ex} {cy} rx={(eggs.egg_length_mm / 2) * px} {ry} fill="#fdfbf3" opacity="0.92" />
            <circle cx={ex} {cy} r={ry * 0.55} class="fill-fat-deep" />
          {/each}
        {:else}
          <circle cx={view.x + (wide / 2) * px} {cy} r={ry} fill="#fdfbf3" />
          <circle cx={view.x + (wide / 2) * px} {cy} r={ry * 0.55} class="fill-fat-deep" />
        {/if}
      {/if}
      {#if !vessel}
        {@const w = view.across * px * left}
        {@const at = view.x + (view.across * px * (1 - left)) / 2}
        <path
          d={free
            ? view.side
              ? loafAlong(at, view.base, w, tall * px * left, shape.end_mm * px * left, "side")
              : loafSection(at, view.base, w, tall * px * left, shape.section_power)
            : `M${at} ${view.base}v${-tall * px * left}h${w}v${tall * px * left}Z`}
          fill="none"
          stroke="#fff"
          stroke-dasharray="6 4"
        />
      {:else}
        <path
          d={tinSide(view.x, view.base, view.across, view.lean)}
          fill="none"
          stroke="#586269"
          stroke-width="3"
        />
        <path
          d={`M${view.x + view.lean * px} ${view.base - tall * px * left}H${view.x + (view.across - view.lean) * px}`}
          stroke="#fff"
          stroke-dasharray="6 4"
        />
      {/if}
      <text
        x={view.x + (view.across / 2) * px}
        y={view.base + 20}
        text-anchor="middle"
        class="fill-base-content text-[13px]">{view.name}</text
      >
    {/each}
    <ScaleBar x={x0} y={height - 5} {px} note={narrow ? "" : "dashed: cooked"} />
  </svg>
  {#if free}
    <DragHandle
      label="Length on the drawing"
      low={60}
      high={1000}
      now={Math.round(long)}
      text={mm(long)}
      left={x0 + long * px}
      top={middle - 24}
      height={48}
      ondrag={drag}
      onhold={(on) => (held = on ? long * 1.15 : null)}
      onnudge={(steps) => bench.edit({ kind: "nudge", figure: "length", steps, item: "" })}
    />
  {/if}
</div>
