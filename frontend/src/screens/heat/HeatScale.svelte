<!-- The scale beside the picture: which colour stands for which temperature. -->
<script lang="ts">
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import { heatColour } from "./heatColour";

  let { left, top, tall }: { left: number; top: number; tall: number } = $props();
  const high = 140;
  const rows = 35;
  const y = (c: number) => top + tall - (tall * c) / high;
</script>

<g aria-hidden="true">
  {#each Array.from({ length: rows }, (_, n) => n) as n (n)}
    <rect
      x={left}
      y={y((high * (n + 1)) / rows)}
      width="10"
      height={tall / rows + 0.5}
      fill={`rgb(${heatColour((high * (n + 0.5)) / rows).join(" ")})`}
    />
  {/each}
  {#each [0, 60, 100, 140] as tick (tick)}
    <text
      x={left + 14}
      y={Math.min(top + tall, y(tick) + (tick === high ? 9 : 4))}
      class="fill-quiet text-[11px]"
      >{amount({ kind: "temp_c", value: tick }, units).replace(/\u00a0°[CF]/, "°")}</text
    >
  {/each}
</g>
