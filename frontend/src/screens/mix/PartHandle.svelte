<!-- The end of a bar: dragged, or moved with arrows half a part at a time. -->
<script lang="ts">
  import type { ScaleLinear } from "d3-scale";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    group: string;
    title: string;
    value: number;
    bandText: string;
    x: ScaleLinear<number, number>;
    most: number;
    top: number;
  }
  let { bench, group, title, value, bandText, x, most, top }: Props = $props();
  let dragging = $state(false);
  let handle: HTMLElement;

  function to(clientX: number): void {
    const box = handle.parentElement?.getBoundingClientRect();
    if (!box) return;
    // Half a part is what a hand can mean; the table takes finer ones.
    const at = Math.round(Math.min(most, Math.max(0, x.invert(clientX - box.left))) * 200) / 200;
    bench.edit({ kind: "set", figure: "group", value: at, item: group });
  }
  function key(event: KeyboardEvent): void {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    bench.edit({ kind: "nudge", figure: "group", steps: way * (event.shiftKey ? 5 : 1), item: group });
  }
</script>

<div
  bind:this={handle}
  role="slider"
  tabindex="0"
  aria-label={`${title}, parts to a hundred of meat`}
  aria-valuemin={0}
  aria-valuemax={most * 100}
  aria-valuenow={Number((value * 100).toFixed(2))}
  aria-valuetext={`${amount({ kind: "per_hundred", value }, units)}; ${bandText}`}
  class="absolute h-[38px] w-11 -translate-x-1/2 cursor-ew-resize touch-none"
  style:left={`${x(Math.min(value, most))}px`}
  style:top={`${top}px`}
  onpointerdown={(e) => {
    dragging = true;
    e.currentTarget.setPointerCapture(e.pointerId);
  }}
  onpointermove={(e) => dragging && to(e.clientX)}
  onpointerup={() => (dragging = false)}
  onpointercancel={() => (dragging = false)}
  onkeydown={key}
>
  <span
    aria-hidden="true"
    class={[
      "absolute top-1/2 left-1/2 h-7 w-[13px] -translate-1/2 rounded-[3px] border-[2.5px] border-primary",
      dragging ? "bg-primary" : "bg-paper",
    ]}
  ></span>
</div>
