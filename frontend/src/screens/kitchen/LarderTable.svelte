<!-- The larder: composition of 100 g, the range of fat, the price, and where each comes from. -->
<script lang="ts">
  import type { Catalogue } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  let { meats }: { meats: Catalogue["meats"] } = $props();
</script>

<section class="mt-8">
  <h2 class="text-lg">Larder</h2>
  <p class="text-[0.875rem] quiet">
    Composition of 100 g raw is an analysis of one sample; the fat range is what deliveries do. Vianda reckons
    with the range.
  </p>
  <!-- A region that scrolls must be reachable by keyboard. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="Larder table">
    <table class="w-full min-w-[46rem] text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-content text-left text-[0.75rem] quiet">
          <th class="py-1 font-normal">Meat</th><th class="px-2 text-right font-normal">Fat, usual (range)</th
          ><th class="px-2 text-right font-normal">Water g</th><th class="px-2 text-right font-normal"
            >Protein g</th
          ><th class="px-2 text-right font-normal">Fat g</th><th class="px-2 text-right font-normal">Price</th
          ><th class="pl-3 font-normal">From</th>
        </tr>
      </thead>
      <tbody>
        {#each meats as m (m.key)}
          <tr class="border-b border-base-300 align-top">
            <td class="py-1.5"
              ><span class="font-semibold">{m.name}</span>{#if m.species !== "beef"}
                <span class="quiet">({m.species})</span>{/if}<span
                class="block text-[0.8125rem] leading-tight quiet">{m.remark}</span
              ></td
            >
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="frac" value={m.fat_usual_frac} /> (<Qty
                kind="frac"
                value={m.fat_low_frac}
                high={m.fat_high_frac}
              />)</td
            >
            <td class="px-2 py-1.5 text-right narrow">{m.composition.water_g_per_100g.toFixed(1)}</td>
            <td class="px-2 py-1.5 text-right narrow">{m.composition.protein_g_per_100g.toFixed(1)}</td>
            <td class="px-2 py-1.5 text-right narrow">{m.composition.fat_g_per_100g.toFixed(1)}</td>
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="price_per_kg" value={Number(m.price_per_kg)} /></td
            >
            <td class="max-w-64 py-1.5 pl-3 text-[0.75rem] leading-tight quiet"
              >{m.composition_note}. Range: {m.range_source}.</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>
