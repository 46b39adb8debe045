<!-- House formulas: rubs, crumbs, sauces and stocks made here, with what they come to and where they are used. -->
<script lang="ts">
  import type { PantryThing } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import { GROUPS, type PantryRoom } from "./pantry.svelte";

  interface Props {
    room: PantryRoom;
    onnew: () => void;
    onedit: (thing: PantryThing) => void;
  }
  let { room, onnew, onedit }: Props = $props();
  const used = (t: PantryThing) => [...t.in_formulas, ...t.in_house].join(", ");
</script>

<section aria-label="House formulas" class="mt-6">
  <div class="flex flex-wrap items-end justify-between gap-3">
    <h2 class="text-lg">Made in the house</h2>
    <button class="act" onclick={onnew}>Write one down</button>
  </div>
  {#if room.house.length === 0}
    <p class="mt-2 quiet">Nothing yet. A rub, home crumbs, a sauce or a stock of your own goes here.</p>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="relative mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="House formulas table">
      <table class="w-full min-w-[46rem] text-[0.875rem]">
        <thead>
          <tr class="border-b border-base-content text-left text-[0.75rem] quiet">
            <th class="py-1 font-normal">What</th>
            <th class="px-2 text-right font-normal">Makes</th>
            <th class="px-2 text-right font-normal">Salt</th>
            <th class="px-2 text-right font-normal">A kilo costs</th>
            <th class="px-2 font-normal">Keeps</th>
            <th class="px-2 font-normal">Allergens</th>
            <th class="px-2 font-normal">Used in</th>
            <th><span class="sr-only">Change</span></th>
          </tr>
        </thead>
        <tbody>
          {#each room.house as t (t.ingredient.key)}
            <tr class={["border-b border-base-300 align-top", t.ingredient.retired && "opacity-60"]}>
              <td class="py-1.5"
                ><span class="font-semibold">{t.ingredient.name}</span>
                <span class="quiet">{GROUPS[t.ingredient.group].toLowerCase()}</span
                >{#if t.ingredient.retired}
                  <span class="quiet">retired</span>{/if}
                {#if t.problem}<span class="block text-[0.8125rem] text-error">{t.problem}</span
                  >{:else if t.ingredient.house?.method}<span
                    class="block max-w-72 text-[0.8125rem] leading-tight quiet"
                    >{t.ingredient.house.method}</span
                  >{/if}</td
              >
              <td class="px-2 py-1.5 text-right narrow"
                >{#if t.figures}<Qty kind="mass_g" value={t.figures.yield_g} />{/if}</td
              >
              <td class="px-2 py-1.5 text-right narrow"
                >{#if t.figures}<Qty kind="fine_frac" value={t.figures.salt_frac} />{/if}</td
              >
              <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
                >{#if t.figures}<Qty kind="price_per_kg" value={Number(t.figures.price_per_kg)} />{/if}</td
              >
              <td class="px-2 py-1.5 whitespace-nowrap narrow"
                >{t.ingredient.house?.keeps_days} days{t.ingredient.house?.acid ? ", acid" : ""}</td
              >
              <td class="px-2 py-1.5 text-[0.8125rem]">{t.figures?.allergens.join(", ") || "none"}</td>
              <td class="max-w-52 px-2 py-1.5 text-[0.8125rem] leading-tight quiet"
                >{used(t) || "nothing yet"}</td
              >
              <td class="py-1"
                ><button
                  class="min-h-9 cursor-pointer rounded px-2 text-sm whitespace-nowrap text-primary hover:bg-base-200"
                  onclick={() => onedit(t)}>Change<span class="sr-only"> {t.ingredient.name}</span></button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>
