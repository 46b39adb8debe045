<!-- The pieces, one mark each; those that take more of the remainder stand taller. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  let { portions, onworking }: { portions: Evaluation["portions"]; onworking: () => void } = $props();
  const most = 120;
  const light = $derived(portions.pieces - portions.heavier_pieces);
  const heavier = (at: number) =>
    portions.remainder === "last" ? at >= light : at < portions.heavier_pieces;
</script>

{#snippet part(count: number, mass: number)}
  <span class="whitespace-nowrap"
    ><Qty kind="count" value={count} /> × <Qty kind="mass_g" value={mass} /></span
  >
{/snippet}

<button
  class="block w-full cursor-pointer rounded border-y border-base-300 py-2.5 text-left hover:bg-paper"
  onclick={onworking}
>
  <span class="flex flex-wrap items-baseline gap-x-2 text-[1.1875rem] numeral" data-division>
    {#if portions.heavier_pieces > 0 && portions.remainder === "last"}
      {@render part(light, portions.piece_mass_g)} <span>+</span>
      {@render part(portions.heavier_pieces, portions.heavier_mass_g)}
    {:else if portions.heavier_pieces > 0}
      {@render part(portions.heavier_pieces, portions.heavier_mass_g)} <span>+</span>
      {@render part(light, portions.piece_mass_g)}
    {:else}
      {@render part(portions.pieces, portions.piece_mass_g)}
    {/if}
    {#if (portions.left_g ?? 0) > 0}<span>+</span>
      <Qty kind="mass_g" value={portions.left_g ?? 0} />
      <span class="text-[0.875rem] font-normal quiet">left</span>{/if}
    <span>=</span>
    <Qty kind="mass_g" value={portions.batch_mass_g} />
    {#if portions.heavier_pieces > 0}
      <span class="text-[0.875rem] font-normal quiet"
        >{portions.remainder === "last"
          ? "the last one takes the remainder of"
          : `the first ${portions.heavier_pieces} take the remainder of`}
        <Qty kind="mass_g" value={portions.taken_up_g} /></span
      >
    {/if}
  </span>
  {#if portions.pieces <= most}
    <span class="mt-1.5 flex h-5 items-end gap-[3px]" aria-hidden="true">
      {#each { length: portions.pieces }, at (at)}
        <span
          class={["max-w-4 min-w-0.5 flex-1 rounded-[2px]", heavier(at) ? "h-5 bg-primary" : "h-3.5 bg-lean"]}
        ></span>
      {/each}
    </span>
  {/if}
</button>
