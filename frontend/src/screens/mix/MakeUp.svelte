<!-- A hundred grams of the raw mix, laid end to end: water, protein, fat, carbohydrate, the rest. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  let { whole, onworking }: { whole: Evaluation["mix"]["whole"]; onworking: () => void } = $props();
  const parts = $derived(
    [
      { name: "water", g: whole.water_g, tone: "bg-[#b9cacc]" },
      { name: "protein", g: whole.protein_g, tone: "bg-lean" },
      { name: "fat", g: whole.fat_g, tone: "bg-fat-deep" },
      { name: "carbohydrate", g: whole.carbohydrate_g, tone: "bg-[#6b5140]" },
      { name: "ash and salt", g: whole.ash_g, tone: "bg-[#8b8f8a]" },
    ].filter((p) => p.g > 0),
  );
</script>

<button class="block w-full cursor-pointer text-left" onclick={onworking}>
  <span class="flex items-baseline justify-between text-[0.8125rem] quiet">
    <span>A hundred grams of the raw mix</span>
    <span
      ><Qty kind="mass_g" value={whole.mass_g} /> in all, <Qty kind="mass_g" value={whole.meat_g} /> of it meat</span
    >
  </span>
  <span class="mt-1 flex h-11 w-full overflow-hidden rounded-[0.25rem]" aria-hidden="true">
    {#each parts as part (part.name)}
      <span class={["h-full", part.tone]} style:width={`${(part.g / whole.mass_g) * 100}%`}></span>
    {/each}
  </span>
  <span class="mt-1.5 flex flex-wrap gap-x-5 gap-y-1">
    {#each parts as part (part.name)}
      <span class="flex items-center gap-1.5 text-[0.875rem]"
        ><span class={["size-3 rounded-[2px]", part.tone]}></span>{part.name}
        <span class="numeral">{amount({ kind: "fine_frac", value: part.g / whole.mass_g }, units)}</span
        ></span
      >
    {/each}
  </span>
  <span class="sr-only">, show the working</span>
</button>
