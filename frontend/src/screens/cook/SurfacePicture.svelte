<!-- One wave on its surface, to scale: centres and sizes are the core's. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  let { stove, diameter, name }: { stove: Evaluation["stove"]; diameter: number; name: string } = $props();
  const w = $derived(stove.surface_width_mm);
  const h = $derived(stove.surface_depth_mm);
  const bar = $derived(units.system === "us" ? 101.6 : 100);
</script>

<svg
  viewBox={`-6 -6 ${w + 12} ${h + 50}`}
  class="block max-h-[17rem] w-full"
  role="img"
  aria-label={`${name}: ${stove.at_once} pieces at once, drawn to scale`}
>
  {#if stove.surface_round}
    <circle cx={w / 2} cy={h / 2} r={w / 2} fill="#3a474e" stroke="#24323a" stroke-width="6" />
  {:else}
    <rect width={w} height={h} rx="8" fill="#3a474e" stroke="#24323a" stroke-width="6" />
  {/if}
  {#each stove.centres_mm as [x, y], at (at)}
    <circle cx={x} cy={y} r={diameter / 2} class="fill-lean" stroke="#efdcae" stroke-width={w / 260} />
    <text {x} y={y + w / 60} text-anchor="middle" class="numeral" fill="#fff" font-size={w / 22}
      >{at + 1}</text
    >
  {/each}
  <path d={`M0 ${h + 20}v8h${bar}v-8`} fill="none" class="stroke-base-content" stroke-width={w / 300} />
  <text x={bar + 10} y={h + 32} class="fill-quiet" font-size={w / 32}
    >{amount({ kind: "length_mm", value: bar }, units)} · {name}</text
  >
</svg>
