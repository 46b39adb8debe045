<!-- The ledger as an account: wanted, less each thing that brings salt, leaves what is added. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  let { salt }: { salt: Evaluation["salt"] } = $props();
  const ledger = $derived(salt.ledger);
  const shown = $derived(
    ledger.entries
      .map((e, at) => ({ ...e, mass_g: salt.entries_g?.[at] ?? 0 }))
      .filter((e) => e.per_meat_frac > 0.00005),
  );
  const widest = $derived(Math.max(ledger.wanted_frac, ledger.brought_frac, 0.001));
</script>

{#snippet row(name: string, mass_g: number, frac: number, tone: string, strong = false)}
  <tr class={["border-b border-base-300", strong && "font-[680]"]}>
    <th scope="row" class="py-1 pr-3 text-left font-[inherit] sm:whitespace-nowrap">{name}</th>
    <td class="w-1/2 px-2 sm:w-full"
      ><span aria-hidden="true" class={["block h-3", tone]} style:width={`${(frac / widest) * 100}%`}
      ></span></td
    >
    <td class="px-2 text-right numeral whitespace-nowrap"><Qty kind="mass_g" value={mass_g} /></td>
    <td class="pl-2 text-right whitespace-nowrap quiet narrow"><Qty kind="fine_frac" value={frac} /></td>
  </tr>
{/snippet}

<table class="mt-4 w-full text-[0.9375rem]">
  <caption class="sr-only">Salt ledger</caption>
  <tbody>
    {@render row("Wanted", salt.wanted_g, ledger.wanted_frac, "bg-base-content", true)}
    {#each shown as entry, at (at)}{@render row(
        `${entry.name.split(",")[0]} brings`,
        entry.mass_g,
        entry.per_meat_frac,
        "bg-fat-deep",
      )}{/each}
    {#if shown.length === 0}
      <tr class="border-b border-base-300"
        ><td colspan="4" class="py-1 quiet">Nothing in this mix brings salt of its own</td></tr
      >
    {/if}
    {#if ledger.over_frac > 0}
      <tr class="text-warning"
        ><th scope="row" class="py-1.5 text-left font-[680]">Too much comes along</th><td class="px-2 text-sm"
          >nothing is added, and it cannot be taken out</td
        ><td class="px-2 text-right numeral whitespace-nowrap"
          ><Qty kind="mass_g" value={salt.over_g ?? 0} /></td
        ><td class="pl-2 text-right"><Qty kind="fine_frac" value={ledger.over_frac} /></td></tr
      >
    {:else}
      {@render row("To add", salt.to_add_g ?? 0, ledger.to_add_frac, "bg-primary", true)}
    {/if}
  </tbody>
</table>
