<!-- Crumbled meat: one portion's lumps side by side, to scale, with a coin. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import ScaleBar, { coinRoom } from "./ScaleBar.svelte";

  let { lumps }: { lumps: NonNullable<Evaluation["shape"]["lumps"]> } = $props();
  let width = $state(560);
  const most = 320;
  const shown = $derived(Math.min(most, lumps.per_portion));
  const px = 2;
  const pitch = $derived(lumps.lump_mm * 1.25 * px);
  const row = $derived(Math.max(1, Math.floor((width - 12) / pitch)));
  const rows = $derived(Math.ceil(shown / row));
  const height = $derived(rows * pitch + 14 + coinRoom(px));
  // A turn for each lump that is the same every time, so that nothing dances.
  const turn = (at: number) => (at * 137) % 180;
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-label={`${lumps.per_portion} lumps of ${amount({ kind: "length_mm", value: lumps.lump_mm }, units)} in a portion, to scale`}
  >
    {#each { length: shown }, at (at)}
      {@const x = 6 + ((at % row) + 0.5) * pitch}
      {@const y = 4 + (Math.floor(at / row) + 0.5) * pitch}
      {@const s = lumps.lump_mm * px}
      <rect
        x={x - s / 2}
        y={y - s / 2}
        width={s}
        height={s}
        rx={s * 0.3}
        fill={at % 3 === 0 ? "#6d2a24" : "#54301f"}
        transform={`rotate(${turn(at)} ${x} ${y})`}
      />
    {/each}
    <ScaleBar
      x={6}
      y={height - 5}
      {px}
      note={lumps.per_portion > most ? "more than are drawn" : "one portion’s meat"}
    />
  </svg>
</div>
