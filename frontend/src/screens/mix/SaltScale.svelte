<!-- Salt as per cent of the meat; the marker is handled like an edge of the blend. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";

  let { bench, salt }: { bench: Bench; salt: Evaluation["salt"] } = $props();
  const height = 150;
  let width = $state(720);
  const most = 0.03;
  const x = $derived(scaleLinear([0, most], [14, width - 24]));
  const shown = $derived(Math.min(salt.salt_frac, most));
  const brought = $derived(Math.min(salt.ledger.brought_frac, most));

  function to(px: number): void {
    const value = Math.round(Math.min(most, Math.max(0, x.invert(px))) * 1000) / 1000;
    bench.edit({ kind: "set", figure: "salt", value, item: "" });
  }
</script>

<div class="relative" bind:clientWidth={width}>
  <svg {width} {height} class="block select-none" aria-hidden="true">
    <defs>
      <pattern id="grain" width="9" height="8" patternUnits="userSpaceOnUse">
        <path d="M2 2l2 1-1 2zM6.5 5l1.6.6-.6 1.4z" fill="#a9a492" />
      </pattern>
    </defs>
    <rect x={x(0)} y="56" width={x(most) - x(0)} height="40" class="fill-base-200" />
    <rect x={x(0)} y="56" width={x(shown) - x(0)} height="40" class="fill-paper" />
    <rect x={x(0)} y="56" width={x(shown) - x(0)} height="40" fill="url(#grain)" />
    {#if brought > 0}
      <rect x={x(0)} y="56" width={x(brought) - x(0)} height="40" class="fill-fat-deep" opacity="0.85" />
      {#if x(brought) - x(0) > 76}
        <text x={x(0) + 8} y="80" class="fill-base-content text-[12.5px]">comes along</text>
      {/if}
    {/if}
    <path d={`M${x(0.013)} 46v-8H${x(0.02)}v8`} class="stroke-warning" stroke-width="2" fill="none" />
    <text
      x={(x(0.013) + x(0.02)) / 2}
      y="30"
      text-anchor="middle"
      class="fill-warning text-[12.5px] font-semibold"
    >
      {width < 520 ? "the old rule" : "the old rule: 1 to 1½ teaspoons to a pound"}
    </text>
    {#each x.ticks(6) as tick (tick)}
      <path d={`M${x(tick)} 96v7`} class="stroke-quiet" />
      <text x={x(tick)} y="119" text-anchor="middle" class="fill-quiet text-[12px]"
        >{(tick * 100).toFixed(1)}</text
      >
    {/each}
    <text x={x(0)} y="141" class="fill-quiet text-[12px]">% of the raw meat, by mass</text>
  </svg>
  <DragHandle
    label="Salt on the scale"
    high={3}
    now={Number((salt.salt_frac * 100).toFixed(2))}
    text={amount({ kind: "fine_frac", value: salt.salt_frac }, units)}
    left={x(shown)}
    top={46}
    height={60}
    big={5}
    ondrag={to}
    onnudge={(steps) => bench.edit({ kind: "nudge", figure: "salt", steps, item: "" })}
  />
</div>
