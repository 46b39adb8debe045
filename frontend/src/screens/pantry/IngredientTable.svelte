<!-- Everything bought for the mix, filtered by kind and by word. -->
<script lang="ts">
  import { api, type PantryThing } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import TableFileButtons from "../../lib/ui/TableFileButtons.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { GROUPS, type PantryRoom } from "./pantry.svelte";

  interface Props {
    room: PantryRoom;
    onnew: () => void;
    onedit: (thing: PantryThing) => void;
  }
  let { room, onnew, onedit }: Props = $props();
  let group = $state("");
  let words = $state("");
  const shown = $derived(
    room.bought.filter(
      ({ ingredient: i }) =>
        (!group || i.group === group) &&
        `${i.name} ${i.remark ?? ""} ${i.allergens?.join(" ")}`
          .toLowerCase()
          .includes(words.trim().toLowerCase()),
    ),
  );
</script>

<section aria-label="Ingredients" class="mt-8">
  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
    <h2 class="text-lg">
      Bought <span class="font-normal quiet">{shown.length} of {room.bought.length}</span>
    </h2>
    <div class="flex flex-wrap items-end gap-3">
      <TextField label="Find" width="10rem" value={words} oninput={(t) => (words = t)} />
      <PickField
        label="Kind"
        width="11rem"
        value={group}
        options={[
          { key: "", title: "all" },
          ...Object.entries(GROUPS).map(([key, title]) => ({ key, title })),
        ]}
        onpick={(key) => (group = key)}
      />
      <button class="act" onclick={onnew}>Add an ingredient</button>
      <TableFileButtons file={room.file} path={api.pantryPath} name="pantry" />
    </div>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="Ingredients table">
    <table class="w-full min-w-[56rem] text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-content text-left text-[0.75rem] quiet">
          <th class="py-1 font-normal">Ingredient</th>
          <th class="px-2 text-right font-normal">Water / fat / salt</th>
          <th class="px-2 text-right font-normal">A cup</th>
          <th class="px-2 font-normal">A piece</th>
          <th class="px-2 font-normal">Allergens</th>
          <th class="px-2 text-right font-normal">Price</th>
          <th class="px-2 font-normal">From</th>
          <th><span class="sr-only">Edit</span></th>
        </tr>
      </thead>
      <tbody>
        {#each shown as t (t.ingredient.key)}
          {@const i = t.ingredient}
          <tr class={["border-b border-base-300 align-top", i.retired && "opacity-60"]}>
            <td class="py-1.5"
              ><span class="font-semibold">{i.name}</span>{#if i.retired}
                <span class="quiet">retired</span>{/if}<span
                class="block max-w-72 text-[0.8125rem] leading-tight quiet">{i.remark}</span
              ></td
            >
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="frac" value={i.composition.water_g_per_100g / 100} /> / <Qty
                kind="frac"
                value={i.composition.fat_g_per_100g / 100}
              /> / <Qty kind="fine_frac" value={t.salt_frac} /></td
            >
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              >{#if i.g_per_cup}<Qty kind="mass_g" value={i.g_per_cup} /><span
                  class="block text-[0.75rem] quiet">{i.volume_source}</span
                >{:else}–{/if}</td
            >
            <td class="px-2 py-1.5 whitespace-nowrap narrow"
              >{#each i.pieces ?? [] as piece, at (at)}{#if at === 0}{piece.name}
                  <Qty kind="mass_g" value={piece.mass_g} />{/if}{/each}</td
            >
            <td class="max-w-40 px-2 py-1.5 text-[0.8125rem] leading-tight">{i.allergens?.join(", ")}</td>
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="price_per_kg" value={Number(i.price_per_kg)} /></td
            >
            <td class="max-w-52 px-2 py-1.5 text-[0.75rem] leading-tight quiet">{i.composition_note}</td>
            <td class="py-1"
              ><button
                class="min-h-9 cursor-pointer rounded px-2 text-sm whitespace-nowrap text-primary hover:bg-base-200"
                onclick={() => onedit(t)}>Edit<span class="sr-only"> {i.name}</span></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if shown.length === 0}<p class="mt-3 quiet">Nothing of that name or kind.</p>{/if}
</section>
