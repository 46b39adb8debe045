<!-- A bar of 50 mm or two inches, and a coin to compare with, inside a drawing. -->
<script module lang="ts">
  // No country's coin: a round disc of an inch or so, which everybody has in a pocket.
  const COIN_MM = 25;
  /** How much height the bar and its coin want. */
  export const coinRoom = (px: number): number => Math.max(22, COIN_MM * px + 6);
</script>

<script lang="ts">
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  interface Props {
    x: number;
    y: number;
    px: number;
    coin?: boolean;
    note?: string;
  }
  let { x, y, px, coin = true, note = "" }: Props = $props();
  const long = $derived(units.system === "us" ? 50.8 : 50);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const bar = $derived(long * px);
</script>

<g transform={`translate(${x} ${y})`}>
  <path d={`M0 -6V0H${bar}V-6`} fill="none" class="stroke-base-content" stroke-width="1.4" />
  <text x={bar + 7} y="0" class="fill-base-content text-[12px]">{mm(long)}</text>
  {#if coin}
    {@const r = (COIN_MM / 2) * px}
    <circle cx={bar + 62 + r} cy={-r + 4} {r} fill="#c9cdca" stroke="#586269" />
    <circle
      cx={bar + 62 + r}
      cy={-r + 4}
      r={r * 0.82}
      fill="none"
      stroke="#8b8f8a"
      stroke-dasharray="1.5 2.5"
    />
    <text x={bar + 68 + r * 2} y="0" class="fill-quiet text-[12px]"
      >coin, {mm(COIN_MM)}{note ? ` · ${note}` : ""}</text
    >
  {:else if note}
    <text x={bar + 60} y="0" class="fill-quiet text-[12px]">{note}</text>
  {/if}
</g>
