<!-- Salt as per cent of the meat; the marker is handled like an edge of the blend. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  let { bench, salt }: { bench: Bench; salt: Evaluation["salt"] } = $props();
  const height = 150;
  let width = $state(720);
  let dragging = $state(false);
  let box: HTMLElement;
  const most = 0.03;
  const x = $derived(scaleLinear([0, most], [14, width - 24]));
  const shown = $derived(Math.min(salt.salt_frac, most));
  const brought = $derived(Math.min(salt.ledger.brought_frac, most));

  function to(px: number): void {
    const value = Math.round(Math.min(most, Math.max(0, x.invert(px))) * 1000) / 1000;
    bench.edit({ kind: "set", figure: "salt", value, item: "" });
  }
</script>

<div class="relative" bind:clientWidth={width} bind:this={box}>
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
  <div
    role="slider"
    tabindex="0"
    aria-label="Salt on the scale"
    aria-valuemin={0}
    aria-valuemax={3}
    aria-valuenow={Number((salt.salt_frac * 100).toFixed(2))}
    aria-valuetext={amount({ kind: "fine_frac", value: salt.salt_frac }, units)}
    class="absolute top-[44px] h-16 w-12 -translate-x-1/2 cursor-ew-resize touch-none"
    style:left={`${x(shown)}px`}
    onpointerdown={(e) => {
      dragging = true;
      e.currentTarget.setPointerCapture(e.pointerId);
    }}
    onpointermove={(e) => dragging && to(e.clientX - box.getBoundingClientRect().left)}
    onpointerup={() => (dragging = false)}
    onpointercancel={() => (dragging = false)}
    onkeydown={(e) => {
      const way =
        e.key === "ArrowRight" || e.key === "ArrowUp"
          ? 1
          : e.key === "ArrowLeft" || e.key === "ArrowDown"
            ? -1
            : 0;
      if (way === 0) return;
      e.preventDefault();
      bench.edit({ kind: "nudge", figure: "salt", steps: way * (e.shiftKey ? 5 : 1), item: "" });
    }}
  >
    <span aria-hidden="true" class="absolute inset-y-1 left-1/2 w-[3px] -translate-x-1/2 bg-primary"></span>
    <span
      aria-hidden="true"
      class={[
        "absolute top-1/2 left-1/2 h-9 w-7 -translate-1/2 rounded border-[2.5px] border-primary",
        dragging ? "bg-primary" : "bg-paper",
      ]}
    ></span>
  </div>
</div>
