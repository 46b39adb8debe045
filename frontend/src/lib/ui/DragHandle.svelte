<!--
  A handle on a drawing: dragged, or moved with arrow keys, `big` times as far with Shift. How far a step goes is the
  core's to say, and a value may lie anywhere on a drawing, so a slider on a track of its own would not do.
-->
<script lang="ts">
  import type { Snippet } from "svelte";
  import { hand } from "../hand";

  interface Props {
    label: string;
    low?: number;
    high: number;
    now: number;
    text: string;
    left: number;
    top: number;
    height: number;
    ondrag: (px: number) => void;
    onnudge: (steps: number) => void;
    big?: number;
    /** Held and let go: a scale that follows the value stands still meanwhile. */
    onhold?: (held: boolean) => void;
    /** It is moved up and down, not from side to side. */
    upright?: boolean;
    /** What is taken hold of, if not the plain bar. */
    grip?: Snippet<[boolean]>;
  }
  let {
    label,
    low = 0,
    high,
    now,
    text,
    left,
    top,
    height,
    ondrag,
    onnudge,
    big = 10,
    onhold,
    upright = false,
    grip,
  }: Props = $props();
  let dragging = $state(false);
  let handle: HTMLElement;
  /** Where the pointer took hold, and how far from there the handle's own place was: it follows, and does not jump. */
  let taken = 0;
  let beside: number | null = null;

  function pointed(event: PointerEvent): number {
    const box = handle.parentElement?.getBoundingClientRect();
    return upright ? event.clientY - (box?.top ?? 0) : event.clientX - (box?.left ?? 0);
  }
  function hold(on: boolean): void {
    dragging = on;
    if (on) hand.take();
    else hand.letGo();
    onhold?.(on);
  }
  function drag(event: PointerEvent): void {
    if (!dragging) return;
    // A drawing that makes room as it is held has moved the handle by now.
    beside ??= (upright ? top + height / 2 : left) - taken;
    ondrag(pointed(event) + beside);
  }
  function key(event: KeyboardEvent): void {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    onnudge(way * (event.shiftKey ? big : 1));
  }
</script>

<div
  bind:this={handle}
  role="slider"
  tabindex="0"
  aria-label={label}
  aria-valuemin={low}
  aria-valuemax={high}
  aria-valuenow={now}
  aria-valuetext={text}
  aria-orientation={upright ? "vertical" : "horizontal"}
  class={[
    "absolute w-11 -translate-x-1/2 touch-none",
    upright ? "cursor-ns-resize" : "cursor-ew-resize",
    dragging ? "z-10" : "",
  ]}
  style:left={`${left}px`}
  style:top={`${top}px`}
  style:height={`${height}px`}
  onpointerdown={(e) => {
    taken = pointed(e);
    beside = null;
    hold(true);
    e.currentTarget.setPointerCapture(e.pointerId);
  }}
  onpointermove={drag}
  onpointerup={() => hold(false)}
  onpointercancel={() => hold(false)}
  onkeydown={key}
>
  {#if grip}{@render grip(dragging)}{:else}
    <span
      aria-hidden="true"
      class={[
        "absolute inset-y-1 left-1/2 w-[13px] -translate-x-1/2 rounded-[3px] border-[2.5px] border-primary",
        dragging ? "bg-primary" : "bg-paper",
      ]}
    ></span>
  {/if}
</div>
