<!-- Doneness bands on a thermometer; the leading floor is the line, the others stand behind it. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Catalogue, Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import { room } from "../../lib/room.svelte";
  import { units } from "../../lib/units.svelte";
  import { donenessFill } from "./doneness";

  interface Props {
    bench: Bench;
    heat: Evaluation["heat"];
    bands: Catalogue["doneness"];
  }
  let { bench, heat, bands }: Props = $props();
  const height = $derived(268 + room(0.6, 240));
  const y = $derived(scaleLinear([46, 80], [height - 6, 6]));
  const t = (value: number) => amount({ kind: "temp_c", value }, units);
  const target = $derived(Math.min(80, Math.max(46, heat.target_c)));
  const below = $derived(heat.below_floor);
  const hold = (s: number) => (s > 0 ? (s >= 60 ? ` ${s / 60} min` : ` ${s} s`) : "");
</script>

<div class="relative mt-2 grid grid-cols-[7.5rem_1fr]">
  <div role="radiogroup" aria-label="Doneness" class="relative" style:height={`${height}px`}>
    {#each bands as band (band.key)}
      {@const chosen = heat.doneness === band.key}
      <button
        role="radio"
        aria-checked={chosen}
        class={[
          "absolute right-0 left-0 flex cursor-pointer items-center px-2 text-[0.8125rem] text-white",
          chosen ? "font-bold" : "",
        ]}
        style:top={`${y(band.high_c)}px`}
        style:height={`${y(band.low_c) - y(band.high_c) - 1.5}px`}
        style:background={donenessFill(band.key)}
        onclick={() => bench.edit({ kind: "choose", field: "doneness", key: band.key })}
      >
        {chosen ? "● " : ""}{band.title}
      </button>
    {/each}
  </div>
  <svg
    viewBox={`0 0 176 ${height}`}
    class="pointer-events-none relative z-10 block w-full overflow-visible"
    style:height={`${height}px`}
    preserveAspectRatio="xMinYMid meet"
    role="img"
    aria-label={`Core wanted ${t(heat.target_c)}, ${heat.doneness}. Leading floor ${t(heat.floors.leading.temp_c)}${hold(heat.floors.leading.hold_s)}, ${heat.floors.leading.authority}.`}
  >
    {#each heat.floors.others as floor (floor.key)}
      <path d={`M-34 ${y(floor.temp_c)}H4`} stroke="#fff" stroke-opacity="0.55" stroke-dasharray="2 3" />
      <path d={`M0 ${y(floor.temp_c)}H6`} class="stroke-quiet" />
    {/each}
    <path d={`M-34 ${y(heat.floors.leading.temp_c)}H22`} stroke="#fff" stroke-width="5" opacity="0.75" />
    <path d={`M-34 ${y(heat.floors.leading.temp_c)}H22`} class="stroke-error" stroke-width="2.4" />
    <text x="26" y={y(heat.floors.leading.temp_c) + (below ? -4 : 16)} class="fill-error text-[13px] numeral"
      >floor {t(heat.floors.leading.temp_c)}{hold(heat.floors.leading.hold_s)}</text
    >
    <text x="26" y={y(heat.floors.leading.temp_c) + (below ? -19 : 30)} class="fill-error text-[11.5px]"
      >{heat.floors.leading.authority}</text
    >
    <path d={`M4 ${y(target)}l11 -7v14z`} class="fill-primary" />
    <path d={`M-34 ${y(target)}H6`} class="stroke-primary" stroke-width="2" stroke-dasharray="6 3" />
    <text x="19" y={y(target) + (below ? 6 : -3)} class="fill-primary text-[16px] numeral"
      >{t(heat.target_c)}</text
    >
    <text x="19" y={y(target) + (below ? 20 : -18)} class="fill-primary text-[11.5px]"
      >{heat.probe ? `wanted; pull at ${t(heat.pull_c)}` : "wanted"}</text
    >
    {#each [50, 60] as tick (tick)}
      {#if Math.abs(y(tick) - y(target)) > 26 && Math.abs(y(tick) - y(heat.floors.leading.temp_c)) > 22}
        <text x="8" y={y(tick) + 4} class="fill-quiet text-[11.5px]">{t(tick)}</text>
      {/if}
    {/each}
  </svg>
</div>
