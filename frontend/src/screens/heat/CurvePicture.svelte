<!-- Temperature through depth over time, and the core's curve under it; one hand moves along time and reads the section. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation, HeatCurve } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";
  import { heatColour, readAt } from "./heatColour";

  let { curve, heat }: { curve: HeatCurve; heat: Evaluation["heat"] } = $props();
  const left = 58;
  const tall = 132;
  const gap = 30;
  const low = 150;
  const height = tall + gap + low + 26;
  let width = $state(720);
  let canvas: HTMLCanvasElement | undefined = $state();
  let asked = $state<number | null>(null);

  const end = $derived(curve.times_s.at(-1) ?? 1);
  const moment = $derived(Math.min(end, asked ?? curve.pull_s));
  const x = $derived(scaleLinear([0, end], [left, Math.max(left + 60, width - 10)]));
  const floor = $derived(heat.floors.leading.temp_c);
  const hottest = $derived(Math.max(80, curve.peak_c + 4, floor + 4));
  const y = $derived(scaleLinear([0, hottest], [tall + gap + low, tall + gap]));
  const t = (value: number) => amount({ kind: "temp_c", value }, units);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const line = (series: readonly number[]) =>
    `M${series.map((v, n) => `${x(curve.times_s[n] ?? 0).toFixed(1)} ${y(Math.min(hottest, v)).toFixed(1)}`).join("L")}`;
  const every = $derived([15, 30, 60, 120, 300, 600].find((s) => end / s <= Math.max(4, width / 80)) ?? 900);
  const ticks = $derived(Array.from({ length: Math.floor(end / every) + 1 }, (_, n) => n * every));

  // One pixel a cell, drawn out by the browser.
  $effect(() => {
    const context = canvas?.getContext("2d");
    if (!canvas || !context) return;
    const columns = Math.max(60, Math.round(width - left - 10));
    const rows = tall;
    canvas.width = columns;
    canvas.height = rows;
    const picture = context.createImageData(columns, rows);
    for (let c = 0; c < columns; c += 1) {
      const at = (end * c) / (columns - 1);
      const field = curve.depth_mm.map((_, d) =>
        readAt(
          curve.times_s,
          curve.temp_c.map((row) => row[d] as number),
          at,
        ),
      );
      for (let r = 0; r < rows; r += 1) {
        // A ball is drawn whole: its middle in the middle, its skin above and below.
        const share = 1 - r / (rows - 1);
        const depth = curve.ball ? Math.abs(2 * share - 1) * curve.size_mm : share * curve.size_mm;
        const [red, green, blue] = heatColour(readAt(curve.depth_mm, field, depth));
        picture.data.set([red, green, blue, 255], (r * columns + c) * 4);
      }
    }
    context.putImageData(picture, 0, 0);
  });

  const section = $derived({
    core: readAt(curve.times_s, curve.core_c, moment),
    coldest: readAt(curve.times_s, curve.coldest_c, moment),
    under: readAt(
      curve.times_s,
      curve.temp_c.map((row) => row[0] as number),
      moment,
    ),
    top: readAt(
      curve.times_s,
      curve.temp_c.map((row) => row.at(-1) as number),
      moment,
    ),
  });
  const said = $derived(
    `At ${time(moment)}: core ${t(section.core)}, coldest ${t(section.coldest)}, ` +
      (curve.ball ? `skin ${t(section.top)}` : `underside ${t(section.under)}, upper side ${t(section.top)}`),
  );
  const label = $derived(
    `Temperature through ${mm(curve.ball ? curve.size_mm * 2 : curve.size_mm)} over ${time(end)}: ` +
      curve.marks.map((m) => `${m.kind} at ${time(m.at_s)}, core ${t(m.core_c)}`).join("; "),
  );
  const names = { flip: "flip", pull: "pull", peak: "highest", floor: "floor met" } as const;
  const marks = $derived(
    curve.marks.filter(
      // Where nothing is gained while it rests, the highest core is that of the pull.
      (m) => m.kind !== "floor" && (m.kind !== "peak" || x(m.at_s) - x(curve.pull_s) > 70),
    ),
  );
</script>

<div class="relative mt-4 max-w-[60rem]" bind:clientWidth={width}>
  <canvas
    bind:this={canvas}
    class="absolute top-0"
    style:left={`${left}px`}
    style:width={`${Math.max(60, width - left - 10)}px`}
    style:height={`${tall}px`}
    aria-hidden="true"
  ></canvas>
  <svg {width} {height} class="relative block select-none" role="img" aria-label={label}>
    <text x={left - 8} y="12" text-anchor="end" class="fill-quiet text-[12px]"
      >{curve.ball ? "skin" : mm(curve.size_mm)}</text
    >
    <text x={left - 8} y={tall} text-anchor="end" class="fill-quiet text-[12px]"
      >{curve.ball ? "skin" : "below"}</text
    >
    <text x={left - 8} y={tall / 2 + 4} text-anchor="end" class="fill-quiet text-[12px]">core</text>
    {#each marks as mark (mark.kind)}
      <path
        d={`M${x(mark.at_s)} 0V${tall + gap + low}`}
        stroke={mark.kind === "peak" ? "#8b8f8a" : "#1b2327"}
        stroke-dasharray={mark.kind === "peak" ? "3 4" : undefined}
        stroke-width="1.4"
      />
      <text
        x={Math.min(width - 14, x(mark.at_s) + 4)}
        y={tall + 13}
        text-anchor={x(mark.at_s) > width - 90 ? "end" : "start"}
        dx={x(mark.at_s) > width - 90 ? -8 : 0}
        class="fill-base-content text-[12px] font-semibold"
        >{names[mark.kind]}{mark.kind === "peak" ? "" : ` ${time(mark.at_s)}`}</text
      >
    {/each}
    <!-- Habit's minutes stand beside what is computed. -->
    <rect
      x={x(Math.min(end, heat.on_heat_s.low))}
      y={tall + gap - 9}
      width={Math.max(1, x(Math.min(end, heat.on_heat_s.high)) - x(Math.min(end, heat.on_heat_s.low)))}
      height="5"
      fill="#b5603a"
      opacity="0.75"
    />
    {#if curve.reached}
      <rect
        x={x(Math.min(end, curve.target_s.low))}
        y={tall + gap}
        width={Math.max(1, x(Math.min(end, curve.target_s.high)) - x(Math.min(end, curve.target_s.low)))}
        height={low}
        class="fill-primary"
        opacity="0.1"
      />
    {/if}
    {#each [20, 40, 60, 80].filter((v) => v < hottest) as tick (tick)}
      <path d={`M${left} ${y(tick)}H${width - 10}`} class="stroke-base-300" />
      <text x={left - 8} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-[12px]">{t(tick)}</text>
    {/each}
    <path d={`M${left} ${y(floor)}H${width - 10}`} class="stroke-error" stroke-width="1.6" />
    <text
      x={left + 6}
      y={y(floor) + (heat.target_c > floor ? 14 : -4)}
      class="fill-error text-[12px] font-semibold">floor {t(floor)}, {heat.floors.leading.authority}</text
    >
    {#if Math.abs(heat.target_c - floor) > 0.4}
      <path
        d={`M${left} ${y(heat.target_c)}H${width - 10}`}
        class="stroke-primary"
        stroke-width="1.4"
        stroke-dasharray="6 4"
      />
      <text
        x={left + 6}
        y={y(heat.target_c) + (heat.target_c < floor ? 14 : -4)}
        class="fill-primary text-[12px] font-semibold">wanted {t(heat.target_c)}</text
      >
    {/if}
    <path d={line(curve.coldest_c)} fill="none" stroke="#586269" stroke-dasharray="2 3" stroke-width="1.6" />
    <path d={line(curve.core_c)} fill="none" class="stroke-lean" stroke-width="2.4" />
    {#each ticks as tick (tick)}
      <path d={`M${x(tick)} ${tall + gap + low}v5`} class="stroke-quiet" />
      <text
        x={x(tick)}
        y={height - 6}
        text-anchor={x(tick) > width - 30 ? "end" : "middle"}
        class="fill-quiet text-[12px]">{time(tick)}</text
      >
    {/each}
  </svg>
  <DragHandle
    label="Moment"
    high={Math.round(end)}
    now={Math.round(moment)}
    text={said}
    left={x(moment)}
    top={0}
    height={tall}
    ondrag={(px) => (asked = Math.max(0, Math.min(end, x.invert(px))))}
    onnudge={(steps) => (asked = Math.max(0, Math.min(end, moment + (steps * end) / 100)))}
  />
</div>
<p class="mt-1 numeral whitespace-normal" data-section role="status">{said}</p>
<p class="text-[0.75rem] quiet">
  Solid: core; dotted: coldest place. Shaded: when the core is there, ten to ninety of a hundred such pieces.
  Brown bar: habit’s minutes.
</p>
