<!-- Counsel: the figure, the reason, the one-tap change. Quiet when all is well. -->
<script lang="ts">
  import type { Counsel, Edit } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Say from "../../lib/ui/Say.svelte";

  let { bench, counsel, current }: { bench: Bench; counsel: Counsel[]; current: string } = $props();
  const here = $derived(counsel.filter((c) => c.step === current));
  const elsewhere = $derived(counsel.filter((c) => c.step !== current));
  const words = { limit: "Limit", check: "Check", note: "Note" } as const;
  const tones = {
    limit: "border-error text-error",
    check: "border-warning text-warning",
    note: "border-primary text-primary",
  } as const;
</script>

{#snippet item(c: Counsel)}
  <li class={["border-t-3 pt-2", tones[c.severity]]} data-rule={c.rule}>
    <p class="text-[0.75rem] leading-none font-semibold">{words[c.severity]}</p>
    <h3 class="mt-1 text-base leading-snug text-base-content"><Say text={c.title} /></h3>
    <p class="mt-0.5 text-[0.875rem] leading-snug text-base-content"><Say text={c.reason} /></p>
    {#if c.changes.length > 0}
      <div class="mt-2 flex flex-wrap gap-2">
        {#each c.changes as change, at (at)}
          <button class="act bg-paper text-sm" onclick={() => bench.edit(change.edit as Edit)}
            ><Say text={change.label} /></button
          >
        {/each}
      </div>
    {/if}
  </li>
{/snippet}

<aside aria-label="Counsel" class="border-base-300 bg-kraft p-4 lg:overflow-y-auto lg:border-l">
  <h2 class="mb-2 text-[0.8125rem] font-semibold quiet">Counsel</h2>
  {#if counsel.length === 0}
    <p class="text-[0.875rem]">Nothing to say. Every figure opens its working: tap it on the ticket.</p>
  {:else}
    {#if here.length > 0}
      <ul class="space-y-4">
        {#each here as c (c.rule)}{@render item(c)}{/each}
      </ul>
    {:else}
      <p class="text-[0.875rem]">Nothing on this step.</p>
    {/if}
    {#if elsewhere.length > 0}
      <h2 class="mt-5 mb-2 text-[0.8125rem] font-semibold quiet">On other steps</h2>
      <ul class="space-y-4">
        {#each elsewhere as c (c.rule)}{@render item(c)}{/each}
      </ul>
    {/if}
  {/if}
</aside>
