<!-- Core, coldest place and surface over time, with the floor, what is wanted, marks, uncertainty and usual practice. -->
<script lang="ts">
  import type { ScaleLinear } from "d3-scale";
  import { scaleLinear } from "d3-scale";
  import type { Catalogue, Evaluation, HeatCurve } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import { room } from "../../lib/room.svelte";
  import { units } from "../../lib/units.svelte";
  import { donenessFill } from "./doneness";
  import { timeTicks } from "./span";

  interface Props {
    curve: HeatCurve;
    heat: Evaluation["heat"];
    bands: Catalogue["doneness"];
    held: { curve: HeatCurve; name: string } | null;
    done: number;
    width: number;
    left: number;
    x: ScaleLinear<number, number>;
    end: number;
    /** Moments that somebody asked for, with what each is. */
    asked?: readonly { at_s: number; name: string }[];
  }
  let { curve, heat, bands, held, done, width, left, x, end, asked = [] }: Props = $props();
  const above = 32;
  const low = $derived(206 + room(0.4, 180));
  /** Above the hottest core a second, coarser scale runs on, for skins and plates. */
  const upper = 46;
  const HOTTEST_SKIN = 300;
  const height = $derived(above + low + 26);
  const right = $derived(x(end));
  const floor = $derived(heat.floors.leading.temp_c);
  const hottest = $derived(Math.max(82, curve.peak_c + 4, floor + 6));
  const y = $derived(scaleLinear([0, hottest, HOTTEST_SKIN], [above + low, above + upper, above]));
  const t = (value: number) => amount({ kind: "temp_c", value }, units);
  const line = (times: readonly number[], series: readonly number[]) =>
    `M${series.map((v, n) => `${x(times[n] ?? 0).toFixed(1)} ${y(Math.max(-5, Math.min(HOTTEST_SKIN, v))).toFixed(1)}`).join("L")}`;
  const ticks = $derived(timeTicks(end, width - left));
  const names = {
    flip: "flip",
    pull: "off",
    peak: "highest",
    floor: "floor met",
    cheese: "cheese",
    melted: "cheese soft",
    glaze: "glaze",
  } as const;
  const late = (m: { at_s: number }) => x(m.at_s) > right - 80;
  // One word to a place: what matters most keeps it.
  const order = ["pull", "flip", "floor", "melted", "cheese", "glaze", "peak"] as const;
  const marks = $derived.by(() => {
    const kept: HeatCurve["marks"] = [];
    for (const kind of order)
      for (const m of curve.marks.filter((one) => one.kind === kind))
        if (kept.every((k) => Math.abs(x(k.at_s) - x(m.at_s)) > (late(m) !== late(k) ? 180 : 96)))
          kept.push(m);
    return kept;
  });
  const shown = $derived(curve.marks.filter((m) => ["flip", "pull", "floor"].includes(m.kind)));
  const heldTimes = $derived((held?.curve.times_s ?? []).filter((at) => at <= end));
  const practice = $derived(heat.practice.on_heat_s);
</script>

<svg {width} {height} class="block select-none" aria-hidden="true">
  {#each bands.filter((b) => b.low_c < hottest) as band, at (band.key)}
    <rect
      x={left}
      y={y(Math.min(hottest, band.high_c))}
      width={right - left}
      height={y(band.low_c) - y(Math.min(hottest, band.high_c))}
      fill={donenessFill(band.key)}
      opacity={at % 2 ? 0.1 : 0.16}
    />
    {#if width > 560 && band.high_c - band.low_c > 6}<text
        x={right + 6}
        y={y((band.low_c + Math.min(hottest, band.high_c)) / 2) + 4}
        class="fill-quiet text-[10.5px]">{band.title}</text
      >{/if}
  {/each}
  {#if curve.reached && curve.uncertainty}
    <rect
      x={x(Math.min(end, curve.pull_s.low))}
      y={above}
      width={Math.max(1, x(Math.min(end, curve.pull_s.high)) - x(Math.min(end, curve.pull_s.low)))}
      height={low}
      class="fill-primary"
      opacity="0.13"
    />
  {/if}
  <path
    d={`M${x(Math.min(end, practice.low))} ${above - 8}H${x(Math.min(end, practice.high))}`}
    class="stroke-base-content"
    stroke-width="3"
    opacity="0.6"
  />
  {#each shown as mark (mark.kind + mark.at_s)}
    <path
      d={`M${x(mark.at_s)} 0V${above + low}`}
      class="stroke-base-content"
      stroke-width="1.2"
      opacity="0.55"
    />
  {/each}
  {#each marks as mark (mark.kind + mark.at_s)}
    <text
      x={x(mark.at_s) + (late(mark) ? -4 : 4)}
      y="13"
      text-anchor={late(mark) ? "end" : "start"}
      class="fill-base-content text-[12px] font-semibold"
      >{names[mark.kind]}{mark.kind === "peak" ? "" : ` ${time(mark.at_s)}`}</text
    >
  {/each}
  {#each [20, 40, 60, 80].filter((v) => v < hottest) as tick (tick)}
    <path d={`M${left} ${y(tick)}H${right}`} class="stroke-base-300" />
    <text x={left - 8} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-[12px]">{t(tick)}</text>
  {/each}
  <path d={`M${left} ${y(floor)}H${right}`} class="stroke-error" stroke-width="1.6" />
  <text
    x={left + 6}
    y={y(floor) + (heat.target_c > floor ? 14 : -4)}
    class="fill-error [stroke:#fcfbf7] [stroke-width:3px] text-[12px] font-semibold [paint-order:stroke]"
    >floor {t(floor)}, {heat.floors.leading.authority}</text
  >
  {#if Math.abs(heat.target_c - floor) > 0.4}
    <path
      d={`M${left} ${y(heat.target_c)}H${right}`}
      class="stroke-primary"
      stroke-width="1.4"
      stroke-dasharray="6 4"
    />
    <text
      x={left + 6}
      y={y(heat.target_c) + (heat.target_c < floor ? 14 : -4)}
      class="fill-primary [stroke:#fcfbf7] [stroke-width:3px] text-[12px] font-semibold [paint-order:stroke]"
      >wanted {t(heat.target_c)}</text
    >
  {/if}
  <path
    d={`M${left} ${above + upper}H${right}`}
    class="stroke-base-content"
    stroke-width="0.6"
    opacity="0.5"
  />
  {#each [100, 200].filter((v) => y(v) < y(80) - 15) as tick (tick)}
    <path d={`M${left} ${y(tick)}H${right}`} class="stroke-base-300" />
    <text x={left - 8} y={y(tick) + 4} text-anchor="end" class="fill-quiet text-[11px]">{t(tick)}</text>
  {/each}
  <path d={line(curve.times_s, curve.surface_c)} fill="none" stroke="#8d5c45" stroke-width="1.2" />
  {#if curve.plate_c.length}
    <path
      d={line(curve.times_s, curve.plate_c)}
      fill="none"
      stroke="#2b3a42"
      stroke-width="1.2"
      stroke-dasharray="4 2"
    />
  {/if}
  {#if held}
    <path
      d={line(heldTimes, held.curve.core_c.slice(0, heldTimes.length))}
      fill="none"
      stroke="#6a4a8c"
      stroke-width="2"
      stroke-dasharray="7 4"
    />
    <path
      d={`M${x(Math.min(end, held.curve.pull_s.usual))} ${above}v${low}`}
      stroke="#6a4a8c"
      stroke-dasharray="3 3"
    />
  {/if}
  <path
    d={line(curve.times_s, curve.cold_c)}
    fill="none"
    stroke="#586269"
    stroke-dasharray="2 3"
    stroke-width="1.8"
  />
  <path d={line(curve.times_s, curve.core_c)} fill="none" class="stroke-lean" stroke-width="2.6" />
  {#each asked as one, at (one.name)}
    {@const near = x(one.at_s) > right - 150}
    <path
      d={`M${x(one.at_s)} ${above}V${above + low}`}
      class="stroke-primary"
      stroke-width="2"
      stroke-dasharray="5 3"
    />
    <text
      x={x(one.at_s) + (near ? -5 : 5)}
      y={above + low - 8 - 16 * at}
      text-anchor={near ? "end" : "start"}
      class="fill-primary [stroke:#fcfbf7] [stroke-width:3px] text-[12px] font-semibold [paint-order:stroke]"
      >{one.name} {time(one.at_s)}</text
    >
  {/each}
  {#each ticks as tick (tick)}
    <path d={`M${x(tick)} ${above + low}v5`} class="stroke-quiet" />
    <text
      x={x(tick)}
      y={height - 6}
      text-anchor={x(tick) > right - 20 ? "end" : "middle"}
      class="fill-quiet text-[12px]">{time(tick)}</text
    >
  {/each}
  {#if done < 1}
    <path d={`M${left} ${height - 1}h${(right - left) * done}`} class="stroke-primary" stroke-width="2" />
  {/if}
</svg>
