<!-- A raw piece cut through: width and thickness in mm, drawn to one scale for all styles. -->
<script lang="ts">
  import type { Catalogue } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  let { style, widest }: { style: Catalogue["styles"][number]; widest: number } = $props();
  const d = $derived(style.raw_diameter_mm);
  const t = $derived(style.thickness_mm);
  const left = $derived((widest - d) / 2);
  const r = $derived(Math.min(t / 2, 6));
  const sag = $derived(style.dimple ? t * 0.3 : 0);
  const path = $derived(
    `M${left + r} ${38 - t} ` +
      (sag ? `H${left + d * 0.3} Q${left + d / 2} ${38 - t + sag * 2} ${left + d * 0.7} ${38 - t} ` : "") +
      `H${left + d - r} Q${left + d} ${38 - t} ${left + d} ${38 - t + r} V${38 - r} Q${left + d} 38 ${left + d - r} 38 ` +
      `H${left + r} Q${left} 38 ${left} ${38 - r} V${38 - t + r} Q${left} ${38 - t} ${left + r} ${38 - t}Z`,
  );
</script>

<span class="mt-1 block w-full">
  <svg viewBox={`0 0 ${widest} 40`} class="block h-18 w-full" aria-hidden="true">
    <path d={path} class="fill-lean" />
    <path d={`M${left} 39.4H${left + d}`} class="stroke-base-content" stroke-width="0.7" fill="none" />
    <path d={`M${left} 38.6v1.6M${left + d} 38.6v1.6`} class="stroke-base-content" stroke-width="0.7" />
  </svg>
  <span class="block text-center text-[0.75rem] leading-tight quiet narrow"
    ><Qty kind="length_mm" value={d} /> across, <Qty kind="length_mm" value={t} /> thick</span
  >
</span>
