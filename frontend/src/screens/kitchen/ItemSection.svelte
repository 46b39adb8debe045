<!-- A list of one kind of thing in the kitchen: each line can be edited, a new one added, one archived. -->
<script lang="ts" generics="T extends { key: string; name: string }">
  import type { Snippet } from "svelte";

  interface Props {
    title: string;
    line?: string;
    addLabel: string;
    items: T[];
    onsave: (items: T[]) => Promise<boolean>;
    row: Snippet<[T]>;
    sheet: Snippet<[T | null, string[], () => void, (item: T | null) => Promise<void>]>;
  }
  let { title, line = "", addLabel, items, onsave, row, sheet }: Props = $props();
  let at = $state<number | null>(null);

  async function save(item: T | null): Promise<void> {
    const next = items.slice();
    if (item) next[at ?? next.length] = item;
    else next.splice(at ?? 0, 1);
    if (await onsave(next)) at = null;
  }
</script>

<section class="mt-7" aria-label={title}>
  <div class="flex flex-wrap items-end justify-between gap-3">
    <h2 class="text-lg">{title}</h2>
    <button class="act text-sm" onclick={() => (at = items.length)}>{addLabel}</button>
  </div>
  {#if line}<p class="text-[0.875rem] quiet">{line}</p>{/if}
  <div class="relative overflow-x-auto">
    <table class="mt-1 w-full">
      <tbody>
        {#each items as item, index (item.key)}
          <tr class="border-b border-base-300">
            <th scope="row" class="py-1.5 text-left font-semibold">{item.name}</th>
            {@render row(item)}
            <td class="py-1 text-right"
              ><button
                class="min-h-9 cursor-pointer rounded px-2 text-sm text-primary hover:bg-base-200"
                onclick={() => (at = index)}>Edit<span class="sr-only"> {item.name}</span></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>
{#if at != null}
  {@render sheet(
    items[at] ?? null,
    items.map((i) => i.key),
    () => (at = null),
    save,
  )}
{/if}
