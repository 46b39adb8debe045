<!-- A hundred grams of the raw mix, laid end to end: water, protein, fat, carbohydrate, the rest. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  let { whole, onworking }: { whole: Evaluation["mix"]["whole"]; onworking: () => void } = $props();
  const tones: Record<string, string> = {
    water: "bg-[#b9cacc]",
    protein: "bg-lean",
    fat: "bg-fat-deep",
    carbohydrate: "bg-[#6b5140]",
    "ash and salt": "bg-[#8b8f8a]",
  };
  const parts = $derived(whole.make_up.map(([name, frac]) => ({ name, frac, tone: tones[name] })));
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
      <span class={["h-full", part.tone]} style:width={`${part.frac * 100}%`}></span>
    {/each}
  </span>
  <span class="mt-1.5 flex flex-wrap gap-x-5 gap-y-1">
    {#each parts as part (part.name)}
      <span class="flex items-center gap-1.5 text-[0.875rem]"
        ><span class={["size-3 rounded-[2px]", part.tone]}></span>{part.name}
        <span class="numeral">{amount({ kind: "fine_frac", value: part.frac }, units)}</span></span
      >
    {/each}
  </span>
  <span class="sr-only">, show the working</span>
</button>
