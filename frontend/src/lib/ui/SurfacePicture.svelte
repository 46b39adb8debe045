<!-- One wave on its surface, to scale: centres and sizes are the core's. -->
<script lang="ts">
  import type { Evaluation, Sheets } from "../api/client";
  import { amount } from "../format";
  import { units } from "../units.svelte";

  interface Props {
    stove: Sheets["stove"];
    shape: Evaluation["shape"];
    name: string;
    /** How many of the places are taken: a last wave may be smaller. */
    count?: number;
  }
  let { stove, shape, name, count }: Props = $props();
  const taken = $derived(count ?? stove.at_once);
  const diameter = $derived(shape.raw_diameter_mm);
  const block = $derived(["loaf", "tin", "tray"].includes(shape.form));
  const w = $derived(stove.surface_width_mm);
  const h = $derived(stove.surface_depth_mm);
  const bar = $derived(units.system === "us" ? 101.6 : 100);
</script>

<svg
  viewBox={`-6 -6 ${w + 12} ${h + 50}`}
  class="block max-h-[17rem] w-full"
  role="img"
  aria-label={`${name ? `${name}: ` : ""}${taken} pieces at once, drawn to scale`}
>
  {#if stove.surface_round}
    <circle cx={w / 2} cy={h / 2} r={w / 2} fill="#3a474e" stroke="#24323a" stroke-width="6" />
  {:else}
    <rect width={w} height={h} rx="8" fill="#3a474e" stroke="#24323a" stroke-width="6" />
  {/if}
  {#each stove.centres_mm.slice(0, shape.form === "crumbled" ? undefined : count) as [x, y], at (at)}
    {#if shape.form === "crumbled"}
      <text {x} {y} text-anchor="middle" class="numeral" fill="#fff" font-size={w / 16}
        >{stove.at_once === 1 ? "one portion" : `${stove.at_once} portions’ meat`} at a time</text
      >
    {:else if block}
      {@const bw = stove.footprint_mm[0]}
      {@const bh = stove.footprint_mm[1]}
      <rect
        x={x - bw / 2}
        y={y - bh / 2}
        width={bw}
        height={bh}
        rx={shape.form === "loaf" ? Math.min(bw, bh) * 0.3 : 4}
        class="fill-lean"
        stroke="#efdcae"
        stroke-width={w / 260}
      />
      <text {x} y={y + w / 60} text-anchor="middle" class="numeral" fill="#fff" font-size={w / 22}
        >{at + 1}</text
      >
    {:else}
      <circle cx={x} cy={y} r={diameter / 2} class="fill-lean" stroke="#efdcae" stroke-width={w / 260} />
      <text
        {x}
        y={y + w / 60}
        text-anchor="middle"
        class="numeral"
        fill="#fff"
        font-size={Math.min(w / 22, diameter * 0.5)}>{at + 1}</text
      >
    {/if}
  {/each}
  <path d={`M0 ${h + 20}v8h${bar}v-8`} fill="none" class="stroke-base-content" stroke-width={w / 300} />
  <text x={bar + 10} y={h + 32} class="fill-quiet" font-size={w / 32}
    >{amount({ kind: "length_mm", value: bar }, units)}{name ? ` · ${name}` : ""}</text
  >
</svg>
