<!-- Temperature through depth over time, and the curves under it; one hand moves along time and reads the section. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Catalogue, Evaluation, HeatCurve } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { room } from "../../lib/room.svelte";
  import { units } from "../../lib/units.svelte";
  import CurveLines from "./CurveLines.svelte";
  import HeatScale from "./HeatScale.svelte";
  import { between, heatColour, readAt } from "./heatColour";

  interface Props {
    curve: HeatCurve;
    heat: Evaluation["heat"];
    bands: Catalogue["doneness"];
    held: { curve: HeatCurve; name: string } | null;
    done: number;
  }
  let { curve, heat, bands, held, done }: Props = $props();
  const left = 58;
  const band = 20;
  const tall = $derived(132 + room(0.3, 120));
  const top = $derived(band + tall);
  let width = $state(720);
  let canvas: HTMLCanvasElement | undefined = $state();
  let asked = $state<number | null>(null);

  const end = $derived(Math.max(curve.times_s.at(-1) ?? 1, held?.curve.pull_s.usual ?? 0));
  const moment = $derived(Math.min(end, asked ?? curve.pull_s.usual));
  const right = $derived(width > 560 ? 78 : 12);
  const x = $derived(scaleLinear([0, end], [left, Math.max(left + 60, width - right)]));
  const t = (value: number) => amount({ kind: "temp_c", value }, units);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const ball = $derived(curve.form === "ball");

  // One pixel a moment, drawn out by the browser.
  $effect(() => {
    const context = canvas?.getContext("2d");
    if (!canvas || !context) return;
    const last = curve.times_s.at(-1) ?? 1;
    const columns = Math.max(60, Math.round(x(last) - left));
    canvas.width = columns;
    canvas.height = tall;
    const picture = context.createImageData(columns, tall);
    for (let c = 0; c < columns; c += 1) {
      const at = (last * c) / (columns - 1);
      // Between two samples each depth stands on a straight line.
      const { at: row, share: on } = between(curve.times_s, at);
      const before = curve.temp_c[row] ?? [];
      const after = curve.temp_c[row + 1] ?? before;
      const field = before.map((t, d) => t + on * ((after[d] ?? t) - t));
      for (let r = 0; r < tall; r += 1) {
        // A ball is drawn whole: its middle in the middle, its skin above and below.
        const share = 1 - r / (tall - 1);
        const depth = ball ? (Math.abs(2 * share - 1) * curve.size_mm) / 2 : share * curve.size_mm;
        const [red, green, blue] = heatColour(readAt(curve.depth_mm, field, depth));
        picture.data.set([red, green, blue, 255], (r * columns + c) * 4);
      }
    }
    context.putImageData(picture, 0, 0);
  });

  const column = (d: number) => curve.temp_c.map((row) => row.at(d) as number);
  const section = $derived({
    core: readAt(curve.times_s, curve.core_c, moment),
    cold: readAt(curve.times_s, curve.cold_c, moment),
    under: readAt(curve.times_s, column(0), moment),
    over: readAt(curve.times_s, column(-1), moment),
    log10: readAt(curve.times_s, curve.log10, moment),
  });
  const said = $derived(
    `At ${time(moment)}: core ${t(section.core)}, every place at least ${t(section.cold)}, ` +
      (ball ? `skin ${t(section.over)}` : `underside ${t(section.under)}, upper side ${t(section.over)}`) +
      (section.log10 > 0.05 ? `, ${section.log10 > 20 ? "over 20" : section.log10.toFixed(1)} log₁₀` : ""),
  );
  const label = $derived(
    `Temperature through ${mm(curve.size_mm)} over ${time(end)}: ` +
      curve.marks.map((m) => `${m.kind} at ${time(m.at_s)}, core ${t(m.core_c)}`).join("; "),
  );
  const names = {
    surface: "on the surface",
    indirect: "beside the fire",
    smoke: "smoke",
    oven: "oven",
    broiler: "broiler",
    fry: "in fat",
    simmer: "sauce",
    rest: "rest",
    chill: "chill",
    freeze: "freeze",
    hold: "hold",
  } as const;
  const lasts = $derived([
    ...curve.stages,
    {
      kind: "rest" as const,
      from_s: curve.stages.at(-1)?.to_s ?? 0,
      to_s: curve.times_s.at(-1) ?? 0,
      flip: false,
      cheese: false,
      glaze: false,
    },
  ]);
  const word = (s: (typeof lasts)[number]) =>
    s.glaze ? "glaze" : s.cheese ? "cheese" : s.flip ? "flipped" : names[s.kind];
</script>

<div class="relative mt-4 max-w-[60rem]" bind:clientWidth={width}>
  <canvas
    bind:this={canvas}
    class="absolute"
    style:top={`${band}px`}
    style:left={`${left}px`}
    style:width={`${Math.max(60, x(curve.times_s.at(-1) ?? 1) - left)}px`}
    style:height={`${tall}px`}
    aria-hidden="true"
  ></canvas>
  <svg {width} height={top + 4} class="relative block select-none" role="img" aria-label={label}>
    {#each lasts as stage, at (at)}
      {@const wide = x(stage.to_s) - x(stage.from_s)}
      <path d={`M${x(stage.from_s)} 0V${top}`} stroke="#1b2327" stroke-width={at === 0 ? 0 : 1.4} />
      <rect
        x={x(stage.from_s)}
        y="0"
        width={Math.max(0, wide - 1)}
        height={band - 3}
        fill={stage.kind === "rest" ? "#d9d8d2" : "#e8d9cd"}
      />
      {#if wide > 46}<text x={x(stage.from_s) + 4} y="13" class="fill-base-content text-[11.5px]"
          >{word(stage)}</text
        >{/if}
    {/each}
    <text x={left - 8} y={band + 11} text-anchor="end" class="fill-quiet text-[12px]"
      >{ball ? "skin" : mm(curve.size_mm)}</text
    >
    <text x={left - 8} y={top} text-anchor="end" class="fill-quiet text-[12px]"
      >{ball ? "skin" : "below"}</text
    >
    <text x={left - 8} y={band + tall / 2 + 4} text-anchor="end" class="fill-quiet text-[12px]">core</text>
    {#if curve.middle_mm > 0}
      {@const high = (tall * curve.middle_mm) / curve.size_mm}
      <rect
        x={left}
        y={band + (tall - high) / 2}
        width={x(curve.times_s.at(-1) ?? 1) - left}
        height={high}
        fill="none"
        stroke="#f4ead0"
        stroke-dasharray="5 3"
      />
    {/if}
    {#if width > 560}<HeatScale left={width - right + 10} top={band} {tall} />{/if}
  </svg>
  <CurveLines {curve} {heat} {bands} {held} {done} {width} {left} {x} {end} />
  <DragHandle
    label="Moment"
    high={Math.round(end)}
    now={Math.round(moment)}
    text={said}
    left={x(moment)}
    top={band}
    height={tall}
    ondrag={(px) => (asked = Math.max(0, Math.min(end, x.invert(px))))}
    onnudge={(steps) => (asked = Math.max(0, Math.min(end, moment + (steps * end) / 100)))}
  />
</div>
<p class="mt-1 numeral whitespace-normal" data-section role="status">{said}</p>
<p class="text-[0.75rem] leading-snug quiet">
  Solid: core; dotted: what every place in the meat has come to; thin: the hotter skin{curve.plate_c.length
    ? "; dashed: the metal under it"
    : ""}, on the coarser scale above. Shaded: off the heat, ten to ninety of a hundred such pieces. Bar:
  usual practice. Colour stands for temperature, not for what a cut would show.
</p>
