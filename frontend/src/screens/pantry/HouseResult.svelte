<!-- What a house formula comes to while it is written. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { HouseDraft } from "./house.svelte";

  let { draft }: { draft: HouseDraft } = $props();
  const f = $derived(draft.figures);
</script>

<div class="w-full border-y border-base-300 py-2.5" aria-live="polite">
  {#if f}
    <div class="flex flex-wrap gap-x-6 gap-y-2">
      <Fact label="Goes in"><Qty kind="mass_g" value={f.input_g} /></Fact>
      <Fact label="Water lost"><Qty kind="mass_g" value={f.water_lost_g} /></Fact>
      <Fact label="Salt"><Qty kind="fine_frac" value={f.salt_frac} /></Fact>
      <Fact label="Fat"><Qty kind="fine_frac" value={f.composition.fat_g_per_100g / 100} /></Fact>
      <Fact label="Sugars"><Qty kind="fine_frac" value={f.composition.sugars_g_per_100g / 100} /></Fact>
      <Fact label="A kilo costs"><Qty kind="price_per_kg" value={Number(f.price_per_kg)} /></Fact>
    </div>
    <p class="mt-1.5 text-[0.875rem]">
      Allergens: {f.allergens.join(", ") || "none declared on what goes in"}
    </p>
  {:else}
    <p class="quiet">What it comes to stands here as soon as something goes in.</p>
  {/if}
</div>
