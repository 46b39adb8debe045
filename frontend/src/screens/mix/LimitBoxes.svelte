<!-- Limits that the formula keeps: the usual ones, the rest behind a word, and single things kept out. -->
<script lang="ts">
  import type { Catalogue, Formula, Limit } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";

  interface Props {
    bench: Bench;
    formula: Formula;
    catalogue: Catalogue | null;
  }
  let { bench, formula, catalogue }: Props = $props();
  const USUAL = 8;
  const offered = $derived(catalogue?.limits ?? []);
  const kept = $derived(new Set(formula.mix?.avoid ?? []));
  const shown = $derived(offered.filter((limit, at) => at < USUAL || kept.has(limit.key as Limit)));
  const more = $derived(offered.filter((limit) => !shown.includes(limit)));
  const without = $derived(formula.mix?.without ?? []);
  const nameOf = (key: string) =>
    catalogue?.pantry.find((i) => i.key === key)?.name ??
    catalogue?.meats.find((m) => m.key === key)?.name ??
    key;
</script>

{#snippet box(limit: Catalogue["limits"][number])}
  {@const on = kept.has(limit.key as Limit)}
  <label
    class={[
      "flex min-h-10 cursor-pointer items-center gap-2 rounded-[0.25rem] border px-2.5",
      on ? "border-primary bg-paper ring-1 ring-primary" : "border-[#8b8f8a] hover:bg-paper",
    ]}
    ><input
      type="checkbox"
      class="size-4.5 accent-[var(--color-primary)]"
      checked={on}
      onchange={(e) =>
        bench.edit({ kind: "keep-limit", limit: limit.key as Limit, on: e.currentTarget.checked })}
    />{limit.title}</label
  >
{/snippet}

<fieldset class="mt-3">
  <legend class="text-base font-[650]">Limits to keep</legend>
  <div class="mt-1 flex flex-wrap gap-2">
    {#each shown as limit (limit.key)}{@render box(limit)}{/each}
  </div>
  <details class="mt-2">
    <summary class="min-h-10 cursor-pointer py-2 text-[0.9375rem] text-primary">More limits</summary>
    <div class="flex flex-wrap gap-2">
      {#each more as limit (limit.key)}{@render box(limit)}{/each}
    </div>
  </details>
  {#if without.length > 0}
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <span class="text-[0.9375rem]">Kept out:</span>
      {#each without as key (key)}
        <button class="act text-sm" onclick={() => bench.edit({ kind: "keep-out", thing: key, on: false })}
          >{nameOf(key)} <span aria-hidden="true">×</span><span class="sr-only">: let it back in</span
          ></button
        >
      {/each}
    </div>
  {/if}
  <p class="mt-1 text-[0.75rem] quiet">
    What breaks one stands in counsel, with the usual swap and its cost.
  </p>
</fieldset>
