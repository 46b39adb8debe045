<!-- One formula of the shelf: its blend in small, what it comes to, and when it was cooked last. -->
<script lang="ts">
  import type { ShelfItem } from "../../lib/api/client";
  import { day } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import BlendGlyph from "./BlendGlyph.svelte";
  import RowMenu from "./RowMenu.svelte";

  interface Props {
    item: ShelfItem;
    archived: boolean;
    oncopy: () => void;
    onarchive: () => void;
    onrestore: () => void;
  }
  let { item, archived, oncopy, onarchive, onrestore }: Props = $props();
</script>

{#snippet figures()}
  <BlendGlyph strips={item.strips} />
  <span class="min-w-0">
    <span class="block truncate text-[1.0625rem] font-semibold">{item.name}</span>
    <span class="block truncate text-[0.8125rem] quiet">{item.style}</span>
  </span>
  <span class="text-right numeral"
    >{#if item.lean_to_fat}<Say text={item.lean_to_fat} />{/if}</span
  >
  <span class="text-right numeral max-sm:hidden"
    >{#if item.pieces}<Say text={item.pieces} />{/if}</span
  >
  <span class="text-right text-[0.8125rem] quiet narrow max-sm:hidden"
    >{#if item.last_cooked}cooked {item.cooks} ×, last {day(item.last_cooked)}{/if}</span
  >
  {#if item.problem}
    <span class="col-span-full text-sm text-error sm:col-start-2">Not worked out: {item.problem}</span>
  {/if}
{/snippet}

<li class="flex items-center gap-2 border-b border-base-300">
  {#if archived}
    <div
      class="grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 py-2.5 sm:grid-cols-[5.5rem_minmax(0,1fr)_6rem_8rem_10.5rem]"
    >
      {@render figures()}
    </div>
    <button class="act text-sm" onclick={onrestore}>Restore<span class="sr-only">: {item.name}</span></button>
  {:else}
    <a
      href={`/formula/${item.id}/meat`}
      class="grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 py-2.5 hover:bg-paper sm:grid-cols-[5.5rem_minmax(0,1fr)_6rem_8rem_10.5rem]"
    >
      {@render figures()}
    </a>
    <RowMenu name={item.name} {oncopy} {onarchive} />
  {/if}
</li>
