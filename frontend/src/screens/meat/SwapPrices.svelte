<!-- At what price a cut that is left out would come into the cheapest blend. -->
<script lang="ts">
  import type { Solved } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  let { swaps }: { swaps: Solved["swaps"] } = $props();
</script>

{#if swaps.length > 0}
  <h2 class="mt-5 text-base">What price would bring another cut in</h2>
  <ul class="mt-1 text-[0.9375rem]">
    {#each swaps.slice(0, 5) as swap (swap.meat)}
      <li class="flex max-w-xl justify-between gap-4 border-b border-base-300 py-1">
        <span>{swap.name}</span><span class="numeral"
          >below <Qty kind="price_per_kg" value={Number(swap.enters_below_per_kg)} />
          <span class="font-normal quiet"
            >now <Qty kind="price_per_kg" value={Number(swap.price_per_kg)} /></span
          ></span
        >
      </li>
    {/each}
  </ul>
  <p class="mt-1 text-[0.8125rem] quiet">
    From the reduced costs of the cheapest blend, all else as it is; bone and trim counted.
  </p>
{/if}
