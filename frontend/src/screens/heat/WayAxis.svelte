<!-- The stages on the heat on their own time axis: where one gives way to the next is dragged, or moved by keys. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { scaleLinear } from "d3-scale";
  import type { HeatCurve, HeatStage } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { snapped, stepOf } from "./axis";
  import { timeTicks } from "./span";
  import { WHERE } from "./stages";

  interface Props {
    /** Those on the heat, and when the computed cook was in each. */
    stages: readonly HeatStage[];
    ran: HeatCurve["stages"];
    /** Which one now ends at the clock, and after how long it began. */
    onend: (at: number, time_s: number) => void;
  }
  let { stages, ran, onend }: Props = $props();
  let width = $state(720);
  const tall = 46;
  /** While a boundary is held it moves alone, and the scale stands still. */
  let held = $state<{ at: number; to_s: number; end: number } | null>(null);
  let holding = false;
  // Let go, it stays where it was put until the curve of it is there; one that was refused goes back.
  const WAIT_MS = 3000;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const settle = () => {
    clearTimeout(waiting);
    if (!holding) held = null;
  };
  $effect(() => {
    void ran;
    settle();
  });
  onDestroy(() => clearTimeout(waiting));

  const end = $derived(held?.end ?? Math.max(60, (ran.at(-1)?.to_s ?? 60) * 1.08));
  const x = $derived(scaleLinear([0, end], [0, width]));
  const step = $derived(stepOf(end));
  const rows = $derived(
    ran.slice(0, stages.length).map((one, at) => {
      const stage = stages[at];
      const from = held && held.at === at - 1 ? held.to_s : one.from_s;
      const to = held && held.at === at ? held.to_s : one.to_s;
      return { at, stage, from, to, began: one.from_s, ended: one.to_s };
    }),
  );
  const title = (stage: HeatStage | undefined) => (stage ? WHERE[stage.kind] : "");
  const acts = (stage: HeatStage | undefined) =>
    [
      stage?.flip && "turned over",
      stage?.cover && "covered",
      stage?.press && "pressed",
      stage?.cheese && "cheese",
      stage?.glaze && "glazed",
    ]
      .filter(Boolean)
      .join(", ");
  const ENDS: Record<HeatStage["until"], string> = { time: "", "two-fifths": "two fifths", core: "core" };
  // The last one mostly waits for the core: only one that ends by the clock is moved.
  const movable = (at: number) => at < rows.length - 1 || stages[at]?.until === "time";
  const move = (at: number, to_s: number) => {
    const row = rows[at];
    const next = rows[at + 1];
    if (!row) return 0;
    return snapped(to_s, { step, least: row.began + 5, most: next ? next.ended - step : end });
  };
</script>

<div class="relative mt-4 mb-2" bind:clientWidth={width} role="group" aria-label="Stages in time">
  <svg {width} height={tall + 22} class="block select-none" aria-hidden="true">
    {#each rows as { at, stage, from, to } (at)}
      {@const wide = Math.max(0, x(to) - x(from) - 1)}
      <rect
        x={x(from)}
        y="0"
        width={wide}
        height={tall}
        class={at % 2 ? "fill-[#8d5c45]" : "fill-[#a34a28]"}
      />
      {#if wide > 70}
        <text x={x(from) + (at ? 14 : 8)} y="18" class="fill-[#fffaf0] text-[13px] font-semibold"
          >{title(stage).slice(0, Math.floor(wide / 7.5))}</text
        >
        <text x={x(from) + (at ? 14 : 8)} y="35" class="fill-[#fffaf0] text-[12px]"
          >{(acts(stage) || ENDS[stage?.until ?? "time"] || "by the clock").slice(
            0,
            Math.floor(wide / 7),
          )}</text
        >
      {/if}
    {/each}
    {#each timeTicks(end, width) as tick (tick)}
      <path d={`M${x(tick)} ${tall}v5`} class="stroke-quiet" />
      <text
        x={x(tick)}
        y={tall + 18}
        text-anchor={tick === 0 ? "start" : "middle"}
        class="fill-quiet text-[12px]">{end >= 3600 ? `${tick / 60} min` : time(tick)}</text
      >
    {/each}
  </svg>
  {#each rows as { at, stage, to, began } (at)}
    {#if movable(at)}
      <DragHandle
        label={`${title(stage)}, stage ${at + 1}, ends`}
        low={Math.round(began)}
        high={Math.round(end)}
        now={Math.round(to)}
        text={`at ${time(to)}${stage && stage.until !== "time" ? `, ${ENDS[stage.until]}` : ""}`}
        left={x(to)}
        top={0}
        height={tall}
        ondrag={(px) => (held = { at, to_s: move(at, x.invert(px)), end })}
        onhold={(on) => {
          holding = on;
          if (on || !held) return;
          waiting = setTimeout(settle, WAIT_MS);
          onend(at, held.to_s - began);
        }}
        onnudge={(steps) => onend(at, move(at, to + steps * step) - began)}
      />
    {/if}
  {/each}
</div>
