<!-- The edge between two meats: drag it, or move it with the arrow keys. -->
<script lang="ts">
  import type { Bench } from "../../lib/bench.svelte";
  import DragHandle from "../../lib/ui/DragHandle.svelte";

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

  function to(at_frac: number): void {
    bench.edit({ kind: "move-edge", index, at_frac: Math.min(1, Math.max(0, at_frac)) });
  }
</script>

<DragHandle
  {label}
  high={100}
  now={Math.round(at * 100)}
  text={`${Math.round(at * 100)} %`}
  left={x}
  {top}
  height={height - top}
  big={5}
  ondrag={(px) => to((px - left) / width)}
  onnudge={(steps) => to(at + steps / 100)}
>
  {#snippet grip(dragging)}
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
  {/snippet}
</DragHandle>
