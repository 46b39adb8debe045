<!-- How fat cuts come to this kitchen: the table's range, each tested delivery, and the range of the next one. -->
<script lang="ts">
  import type { LearntFat } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import FatPicture from "./FatPicture.svelte";

  interface Props {
    fats: readonly LearntFat[];
    use: (fat: LearntFat, on: boolean) => void;
  }
  let { fats, use }: Props = $props();
</script>

<section class="mt-7" aria-labelledby="learnt-fats">
  <h2 id="learnt-fats" class="border-b-2 border-base-content pb-1 text-lg">Fat of your cuts</h2>
  <p class="mt-1 max-w-[44rem] text-[0.875rem] quiet">
    How fat the next delivery comes, nine in ten, by those that were tested here: by a fat test or a
    laboratory. Moves the fat of every blend with an untested delivery, its doubt and its name.
  </p>
  <ul>
    {#each fats as fat (fat.meat)}
      <li class="border-b border-base-300 py-3" aria-label={fat.name}>
        <div
          class="grid items-center gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)_5.5rem_9.5rem]"
        >
          <div>
            <p class="font-semibold">{fat.name}</p>
            <p class="text-[0.875rem] quiet"><Say text={fat.says} /></p>
          </div>
          <FatPicture {fat} />
          <p class="sm:text-right">
            <span class="text-lg numeral"><Qty kind="frac" value={fat.posterior.usual} /></span>
            <span class="block text-[0.75rem] quiet max-sm:inline"
              ><Qty kind="frac" value={fat.posterior.low} high={fat.posterior.high} /></span
            >
          </p>
          <div class="flex flex-col items-stretch gap-1 max-sm:flex-row">
            {#if fat.news}
              <button class="act" onclick={() => use(fat, true)}>Use this range</button>
            {:else if fat.in_use}
              <p class="text-sm sm:text-center">This range is in use</p>
            {/if}
            {#if fat.in_use}
              <button class="act text-sm" onclick={() => use(fat, false)}>Back to the table</button>
            {/if}
          </div>
        </div>
        <details class="mt-1">
          <summary class="cursor-pointer py-1 text-[0.875rem] text-primary"
            >What was tested: {fat.counted} of {fat.data.length}
            {fat.data.length === 1 ? "delivery counts" : "deliveries count"}</summary
          >
          <ul class="mt-1 text-[0.875rem]">
            {#each [...fat.data].reverse() as seen (seen.lot)}
              <li class="flex flex-wrap gap-x-4 border-t border-base-300 py-1.5">
                <span class="w-24 quiet narrow">{dayName(seen.delivered)}</span>
                <a
                  class="min-w-40 flex-1 text-primary underline underline-offset-3"
                  href={`/lots/${encodeURIComponent(seen.lot)}`}>{seen.name}</a
                >
                <span class="numeral"><Qty kind="fine_frac" value={seen.fat_frac} /></span>
                <span class={["w-32", seen.outlier ? "text-warning" : "quiet"]}
                  >{seen.outlier ? "outlier, left out" : "counts"}</span
                >
              </li>
            {/each}
          </ul>
        </details>
      </li>
    {/each}
  </ul>
</section>
