<!-- The edge between two meats: drag it, or move it with the arrow keys. -->
<script lang="ts">
  import type { Bench } from "../../lib/bench.svelte";

  interface Props {
    bench: Bench;
    index: number;
    at: number;
    x: number;
    top: number;
    height: number;
    left: number;
    width: number;
    label: string;
  }
  let { bench, index, at, x, top, height, left, width, label }: Props = $props();
  let dragging = $state(false);
  let handle: HTMLElement;

  function to(at_frac: number): void {
    bench.edit({ kind: "move-edge", index, at_frac: Math.min(1, Math.max(0, at_frac)) });
  }
  function move(event: PointerEvent): void {
    if (!dragging) return;
    const box = handle.parentElement?.getBoundingClientRect();
    if (box) to((event.clientX - box.left - left) / width);
  }
  function key(event: KeyboardEvent): void {
    const step =
      (event.shiftKey ? 0.05 : 0.01) * (event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0);
    if (step === 0) return;
    event.preventDefault();
    to(at + step);
  }
</script>

<div
  bind:this={handle}
  role="slider"
  tabindex="0"
  aria-label={label}
  aria-orientation="horizontal"
  aria-valuemin={0}
  aria-valuemax={100}
  aria-valuenow={Math.round(at * 100)}
  class={["absolute w-11 -translate-x-1/2 cursor-ew-resize touch-none", dragging ? "z-10" : ""]}
  style:left={`${x}px`}
  style:top={`${top}px`}
  style:height={`${height - top}px`}
  onpointerdown={(e) => {
    dragging = true;
    handle.setPointerCapture(e.pointerId);
  }}
  onpointermove={move}
  onpointerup={() => (dragging = false)}
  onpointercancel={() => (dragging = false)}
  onkeydown={key}
>
  <span aria-hidden="true" class="absolute inset-y-0 left-1/2 w-[3px] -translate-x-1/2 bg-base-100"></span>
  <svg viewBox="0 0 28 36" class="absolute bottom-14 left-1/2 w-7 -translate-x-1/2" aria-hidden="true">
    <rect
      x="1.5"
      y="1.5"
      width="25"
      height="33"
      rx="4"
      class={dragging ? "fill-primary" : "fill-paper"}
      stroke="#0f5f6b"
      stroke-width="2.4"
    />
    <path d="M10 11v14M18 11v14" stroke={dragging ? "#fff" : "#0f5f6b"} stroke-width="2.4" />
  </svg>
</div>
