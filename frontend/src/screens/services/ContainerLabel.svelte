<!-- One label as it is printed: name, dates, mass and pieces, allergens in bold, lot. -->
<script lang="ts">
  import type { Labels } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import Qty from "../../lib/ui/Qty.svelte";

  interface Props {
    printed: Labels["found"]["printed"][number];
    kitchen: string;
    sheet: Labels["found"]["sheet"];
    type_pt: number;
    onmeasured: (fits: boolean) => void;
  }
  let { printed, kitchen, sheet, type_pt, onmeasured }: Props = $props();
  const label = $derived(printed.label);
  let box = $state<HTMLElement | null>(null);
  $effect(() => {
    void [label, sheet, type_pt];
    if (box) onmeasured(box.scrollHeight <= box.clientHeight + 1);
  });
</script>

<li
  bind:this={box}
  class="absolute overflow-hidden bg-white leading-[1.2] text-black outline outline-[#8b8f8a] outline-dashed print:outline-none"
  style:left={`${printed.x_mm}mm`}
  style:top={`${printed.y_mm}mm`}
  style:width={`${sheet.width_mm}mm`}
  style:height={`${sheet.height_mm}mm`}
  style:padding="2mm 2.5mm"
  style:font-size={`${type_pt}pt`}
>
  <span class="block text-[1.2em] font-semibold">{label.name}</span>
  {#if label.allowed_name && label.allowed_name !== label.name}<span class="block">{label.allowed_name}</span
    >{/if}
  <span class="block font-semibold">Use by {dayName(label.use_by)}</span>
  <span class="block"
    >Made {dayName(label.made)} · <Qty kind="mass_g" value={label.mass_g} />{#if label.pieces > 0}
      · {label.pieces} × <Qty kind="mass_g" value={label.piece_g} />{/if}{#if printed.of > 1}
      · {printed.number} of {printed.of}{/if}</span
  >
  <span class="block"
    >{#if label.allergens.length > 0}Contains <b class="font-bold">{label.allergens.join(", ")}</b>{:else}No
      allergen declared{/if}</span
  >
  <span class="block numeral">Lot {label.lot}</span>
  {#if label.from_lots.length > 0}<span class="block">Meat: {label.from_lots.join(", ")}</span>{/if}
  <span class="block">{kitchen}</span>
</li>
