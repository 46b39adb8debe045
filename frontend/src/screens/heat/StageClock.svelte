<!-- Stages on one clock: solid to the least, hatched to the most; usual practice is a line under them. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { timeTicks } from "./span";

  let { heat }: { heat: Evaluation["heat"] } = $props();
  let width = $state(440);

  const rows = $derived.by(() => {
    let from = 0;
    return heat.stages
      .filter((s) => s.kind !== "preheat")
      .map((stage) => {
        // The press happens inside the first side.
        const row = { stage, from };
        if (stage.kind !== "press") from += stage.high_s;
        return row;
      });
  });
  const end = $derived(Math.max(heat.practice.on_heat_s.high, ...rows.map((r) => r.from + r.stage.high_s)));
  const x = $derived(scaleLinear([0, end], [1, Math.max(60, width - 12)]));
  const ticks = $derived(timeTicks(end, width));
  // Past an hour seconds say more than anyone knows.
  const span = (low: number, high: number) =>
    high >= 3600 ? `${Math.round(low / 60)}–${Math.round(high / 60)} min` : `${time(low)}–${time(high)}`;
  const label = $derived(
    rows.map((r) => `${r.stage.title} ${time(r.stage.low_s)} to ${time(r.stage.high_s)}`).join(", "),
  );
</script>

<div bind:clientWidth={width} class="mt-2">
  <ol aria-label={`Stages: ${label}`}>
    {#each rows as { stage, from }, at (at)}
      <li class="mb-2">
        <div class="flex items-baseline justify-between gap-3 text-[0.875rem]">
          <span class="font-semibold">{stage.title}</span>
          <span class="numeral"
            >{#if stage.kind === "press"}by {time(
                stage.high_s,
              )}{:else if stage.high_s - stage.low_s < 1}{time(stage.high_s)}{:else}{span(
                stage.low_s,
                stage.high_s,
              )}{/if}</span
          >
        </div>
        <svg {width} height="13" class="block" aria-hidden="true">
          <defs>
            <pattern
              id="maybe"
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"><path d="M0 0V6" stroke="#b5603a" stroke-width="2.6" /></pattern
            >
            <pattern
              id="calm"
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"><path d="M0 0V6" stroke="#8b8f8a" stroke-width="2.2" /></pattern
            >
          </defs>
          <path d={`M0 12.5H${width}`} class="stroke-base-300" />
          <rect
            x={x(from)}
            y="1"
            width={Math.max(1, x(from + stage.low_s) - x(from))}
            height="11"
            fill={stage.kind === "rest" ? "#8b8f8a" : "#a34a28"}
          />
          <rect
            x={x(from + stage.low_s)}
            y="1"
            width={Math.max(0, x(from + stage.high_s) - x(from + stage.low_s))}
            height="11"
            fill={stage.kind === "rest" ? "url(#calm)" : "url(#maybe)"}
          />
        </svg>
        <p class="text-[0.8125rem] leading-tight quiet"><Say text={stage.cue} /></p>
      </li>
    {/each}
  </ol>
  {#if heat.model !== "practice"}
    <div class="mb-1 flex items-baseline justify-between gap-3 text-[0.8125rem] quiet">
      <span
        >Usual practice, on the heat, at <Qty kind="temp_c" value={heat.surface_low_c} /> to
        <Qty kind="temp_c" value={heat.surface_high_c} /></span
      >
      <span class="numeral">{span(heat.practice.on_heat_s.low, heat.practice.on_heat_s.high)}</span>
    </div>
    <svg {width} height="9" class="block" aria-hidden="true">
      <path
        d={`M${x(heat.practice.on_heat_s.low)} 4.5H${x(heat.practice.on_heat_s.high)}`}
        class="stroke-base-content"
        stroke-width="2"
      />
      <path
        d={`M${x(heat.practice.on_heat_s.low)} 1v7M${x(heat.practice.on_heat_s.high)} 1v7`}
        class="stroke-base-content"
        stroke-width="2"
      />
    </svg>
  {/if}
  <svg {width} height="20" class="block" aria-hidden="true">
    {#each ticks as tick (tick)}
      <path d={`M${x(tick)} 0v4`} class="stroke-quiet" />
      <text
        x={x(tick)}
        y="16"
        text-anchor={tick === 0 ? "start" : x(tick) > width - 24 ? "end" : "middle"}
        class="fill-quiet text-[11.5px]">{end >= 3600 ? `${tick / 60} min` : time(tick)}</text
      >
    {/each}
  </svg>
</div>
