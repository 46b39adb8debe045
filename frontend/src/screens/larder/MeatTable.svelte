<!-- Every meat: range, connective tissue, price bought and what trimming takes; filtered; as a file. -->
<script lang="ts">
  import { api, type Meat } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import TableFileButtons from "../../lib/ui/TableFileButtons.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import type { LarderRoom } from "./larder.svelte";

  interface Props {
    room: LarderRoom;
    meats: Meat[];
    onnew: () => void;
    onedit: (meat: Meat) => void;
  }
  let { room, meats, onnew, onedit }: Props = $props();
  let species = $state("");
  let words = $state("");
  let retired = $state(false);
  const kinds = $derived([...new Set(meats.map((m) => m.species))]);
  const shown = $derived(
    meats.filter(
      (m) =>
        (!species || m.species === species) &&
        (retired || !m.retired) &&
        `${m.name} ${m.remark ?? ""}`.toLowerCase().includes(words.trim().toLowerCase()),
    ),
  );
</script>

<section aria-label="Meats" class="mt-8">
  <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
    <h2 class="text-lg">Meats <span class="font-normal quiet">{shown.length} of {meats.length}</span></h2>
    <div class="flex flex-wrap items-end gap-3">
      <TextField label="Find" width="10rem" value={words} oninput={(t) => (words = t)} />
      <PickField
        label="Species"
        width="8rem"
        value={species}
        options={[{ key: "", title: "all" }, ...kinds.map((k) => ({ key: k, title: k }))]}
        onpick={(key) => (species = key)}
      />
      <button class="act" onclick={onnew}>Add a meat</button>
      <TableFileButtons file={room.file} path={api.larderPath} name="larder" />
    </div>
  </div>
  {#if meats.some((m) => m.retired)}
    <label class="mt-2 flex min-h-8 items-center gap-2 text-[0.875rem]"
      ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={retired} /> retired ones
      too</label
    >
  {/if}
  <!-- A region that scrolls must be reachable by keyboard. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative mt-2 overflow-x-auto" tabindex="0" role="region" aria-label="Larder table">
    <table class="w-full min-w-[52rem] text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-content text-left text-[0.75rem] quiet">
          <th class="py-1 font-normal">Meat</th><th class="px-2 text-right font-normal">Fat, usual (range)</th
          ><th class="px-2 font-normal">Sinew</th><th class="px-2 text-right font-normal"
            >Water / protein g</th
          ><th class="px-2 text-right font-normal">Trim</th><th class="px-2 text-right font-normal">Price</th
          ><th class="px-2 font-normal">From</th><th><span class="sr-only">Edit</span></th>
        </tr>
      </thead>
      <tbody>
        {#each shown as m (m.key)}
          <tr class={["border-b border-base-300 align-top", m.retired && "opacity-60"]}>
            <td class="py-1.5"
              ><span class="font-semibold">{m.name}</span>{#if m.species !== "beef"}
                <span class="quiet">{m.species}</span>{/if}{#if m.cured}
                <span class="quiet">cured</span>{/if}{#if m.retired}
                <span class="quiet">retired</span>{/if}<span
                class="block max-w-80 text-[0.8125rem] leading-tight quiet">{m.remark}</span
              ></td
            >
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="fine_frac" value={m.fat_usual_frac} /> (<Qty
                kind="frac"
                value={m.fat_low_frac}
                high={m.fat_high_frac}
              />)</td
            >
            <td class="px-2 py-1.5 narrow">{m.connective}</td>
            <td class="px-2 py-1.5 text-right narrow"
              >{m.composition.water_g_per_100g.toFixed(1)} / {m.composition.protein_g_per_100g.toFixed(1)}</td
            >
            <td class="px-2 py-1.5 text-right narrow"><Qty kind="frac" value={m.trim_loss_frac ?? 0} /></td>
            <td class="px-2 py-1.5 text-right whitespace-nowrap narrow"
              ><Qty kind="price_per_kg" value={Number(m.price_per_kg)} />{#if m.pack_mass_g}<span
                  class="block text-[0.75rem] quiet"
                  >packs of <Qty kind="mass_g" value={m.pack_mass_g} /></span
                >{/if}</td
            >
            <td class="max-w-56 px-2 py-1.5 text-[0.75rem] leading-tight quiet"
              >{m.composition_note}. Range: {m.range_source}.</td
            >
            <td class="py-1"
              ><button
                class="min-h-9 cursor-pointer rounded px-2 text-sm text-primary hover:bg-base-200"
                onclick={() => onedit(m)}>Edit<span class="sr-only"> {m.name}</span></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>
