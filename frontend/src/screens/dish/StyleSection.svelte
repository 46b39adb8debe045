<!-- A raw piece cut through: width and height in mm, drawn to one scale for the styles of a dish. -->
<script lang="ts">
  import type { Catalogue } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  interface Props {
    style: Catalogue["styles"][number];
    widest: number;
    tallest: number;
    /** There is room: few styles stand beside it. */
    large: boolean;
  }
  let { style, widest, tallest, large }: Props = $props();
  const d = $derived(style.raw_diameter_mm);
  const t = $derived(style.thickness_mm);
  // Discs are drawn in a flat window, balls and loaves in one as tall as they are.
  const base = $derived(Math.max(38, tallest + 3));
  const left = $derived((widest - d) / 2);
  const r = $derived(Math.min(t / 2, 6));
  const sag = $derived(style.dimple ? t * 0.3 : 0);
  const disc = $derived(
    `M${left + r} ${base - t} ` +
      (sag
        ? `H${left + d * 0.3} Q${left + d / 2} ${base - t + sag * 2} ${left + d * 0.7} ${base - t} `
        : "") +
      `H${left + d - r} Q${left + d} ${base - t} ${left + d} ${base - t + r} V${base - r} Q${left + d} ${base} ${left + d - r} ${base} ` +
      `H${left + r} Q${left} ${base} ${left} ${base - r} V${base - t + r} Q${left} ${base - t} ${left + r} ${base - t}Z`,
  );
  const mound = $derived(
    `M${left} ${base}V${base - t * 0.45}C${left} ${base - t * 1.05} ${left + d * 0.16} ${base - t} ${left + d * 0.26} ${base - t}` +
      `H${left + d * 0.74}C${left + d * 0.84} ${base - t} ${left + d} ${base - t * 1.05} ${left + d} ${base - t * 0.45}V${base}Z`,
  );
  // Crumbs of meat, laid the same way each time.
  const crumbs = Array.from({ length: 44 }, (_, i) => ({
    x: 0.06 + ((i * 37) % 89) / 101,
    y: ((i * 53) % 31) / 44,
    r: 1.3 + ((i * 7) % 5) / 4,
  }));
</script>

<span class="mt-1 block w-full">
  <svg
    viewBox={`0 0 ${widest} ${base + 2}`}
    class={["block w-full", large ? "h-13 sm:h-28" : "h-13"]}
    aria-hidden="true"
  >
    {#if style.form === "ball"}
      <circle cx={widest / 2} cy={base - t / 2} r={t / 2} class="fill-lean" />
    {:else if style.form === "loaf"}
      <path d={mound} class="fill-lean" />
      {#if style.key === "loaf-filled"}
        {#each [0.2, 0.4, 0.6, 0.8] as at (at)}
          <ellipse cx={left + d * at} cy={base - t * 0.48} rx={d * 0.075} ry={t * 0.22} fill="#fdfbf3" />
          <circle cx={left + d * at} cy={base - t * 0.48} r={t * 0.12} class="fill-fat-deep" />
        {/each}
      {/if}
    {:else if style.form === "tin" || style.form === "tray"}
      <path d={`M${left} ${base - t}H${left + d}V${base}H${left}Z`} class="fill-lean" />
      <path
        d={`M${left - 3} ${base - t - 5}L${left - 1} ${base + 1}H${left + d + 1}L${left + d + 3} ${base - t - 5}`}
        fill="none"
        stroke="#586269"
        stroke-width="2"
      />
    {:else if style.form === "crumbled"}
      {#each crumbs as c (`${c.x}-${c.y}`)}
        <circle cx={c.x * widest} cy={base - 4 - c.y * 30} r={c.r * 1.6} class="fill-lean" />
      {/each}
    {:else}
      <path d={disc} class="fill-lean" />
      {#if style.form === "filled"}
        <rect x={left + d * 0.16} y={base - t * 0.62} width={d * 0.68} height={t * 0.24} fill="#f0c85a" />
      {:else if style.form === "spread"}
        <rect x={left} y={base - 2} width={d} height="3" fill="#e2b977" />
      {/if}
    {/if}
    {#if style.form !== "crumbled"}
      <path
        d={`M${left} ${base + 1.4}H${left + d}`}
        class="stroke-base-content"
        stroke-width="0.7"
        fill="none"
      />
    {/if}
  </svg>
  <span class="block text-center text-[0.75rem] leading-tight quiet narrow"
    >{#if style.form === "crumbled"}a portion with its sauce{:else if ["disc", "filled", "spread"].includes(style.form)}<Qty
        kind="length_mm"
        value={d}
      /> across, <Qty kind="length_mm" value={t} /> thick{:else if style.form === "ball"}<Qty
        kind="length_mm"
        value={d}
      /> across{:else}<Qty kind="length_mm" value={d} /> × <Qty kind="length_mm" value={style.width_mm} />, <Qty
        kind="length_mm"
        value={t}
      /> high{/if}</span
  >
</span>
