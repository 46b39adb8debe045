<!-- The meats that may come in, each with bounds on its share. -->
<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import type { Catalogue, Evaluation } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { ManyMeats } from "./target.svelte";

  let { wish, catalogue, evaluation }: { wish: ManyMeats; catalogue: Catalogue; evaluation: Evaluation } =
    $props();
  const meat = (key: string) => catalogue.meats.find((m) => m.key === key);
  const lot = (key: string) => catalogue.lots.find((l) => l.key === key);
  const free = $derived(
    catalogue.meats.filter((m) => !m.retired && !wish.candidates.some((c) => c.meat === m.key)),
  );
</script>

<div class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-2">
  <h2 class="text-base">From these meats</h2>
  <button type="button" class="act text-sm" onclick={() => wish.onlyThese(evaluation)}
    >Only this blend’s</button
  >
  <button type="button" class="act text-sm" onclick={() => wish.all("beef", catalogue, evaluation)}
    >All beef</button
  >
  <PickField
    label="One more"
    value=""
    width="13rem"
    options={[{ key: "", title: "From the larder …" }, ...free.map((m) => ({ key: m.key, title: m.name }))]}
    onpick={(key) => key && wish.add(key, catalogue, evaluation)}
  />
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="relative mt-2 max-h-60 overflow-auto" tabindex="0" role="region" aria-label="Candidates">
  <table class="w-full min-w-[30rem] text-[0.875rem]">
    <thead>
      <tr class="border-b border-base-300 text-left text-[0.75rem] quiet">
        <th class="py-1 font-normal">Meat</th><th class="px-2 text-right font-normal">Fat, usual</th><th
          class="px-2 text-right font-normal">Price</th
        ><th class="px-2 font-normal">At least</th><th class="px-2 font-normal">At most</th><th
          ><span class="sr-only">Leave out</span></th
        >
      </tr>
    </thead>
    <tbody>
      {#each wish.candidates as c (`${c.meat}/${c.lot ?? ""}`)}
        {@const m = meat(c.meat)}
        <tr class="border-b border-base-300">
          <td class="py-1 font-semibold"
            >{m?.name ?? c.meat}{#if c.lot}<span class="block text-[0.75rem] font-normal quiet"
                >{lot(c.lot)?.name ?? c.lot}</span
              >{/if}</td
          >
          <td class="px-2 text-right narrow"><Qty kind="frac" value={m?.fat_usual_frac ?? 0} /></td>
          <td class="px-2 text-right narrow"
            ><Qty kind="price_per_kg" value={Number((lot(c.lot ?? "") ?? m)?.price_per_kg ?? 0)} /></td
          >
          {#each ["least", "most"] as const as side (side)}
            <td class="px-2 py-1"
              ><input
                class="h-8 w-16 rounded border border-[#8b8f8a] bg-paper px-1.5 text-center numeral placeholder:font-normal placeholder:text-quiet"
                aria-label={`${m?.name ?? c.meat} at ${side}`}
                placeholder={side === "least" ? "0 %" : "100 %"}
                value={c[side]}
                oninput={(e) => wish.bound(c.meat, side, e.currentTarget.value)}
              /></td
            >
          {/each}
          <td class="text-right"
            ><button
              type="button"
              class="inline-grid size-8 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200"
              aria-label={`Leave out ${m?.name ?? c.meat}`}
              onclick={() => wish.remove(c.meat)}><X size={16} /></button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>
