<!-- The record: each reading, newest first; one that does not count says why and can be taken back. -->
<script lang="ts">
  import type { Weighing } from "../../lib/api/client";
  import { reading as g } from "../../lib/grams";

  interface Props {
    records: Weighing["running"]["records"];
    finished: boolean;
    onact: (action: "set-aside" | "count", about: number) => void;
  }
  let { records, finished, onact }: Props = $props();
  const off = (value: number) =>
    Math.abs(value) < 0.05 ? "on target" : `${value > 0 ? "+" : "−"}${g(Math.abs(value))}`;
  const why = { odd: "no piece: set aside", cook: "set aside", "": "" } as const;
  const newest = $derived(records.slice().reverse());
</script>

<h2 class="mt-2 text-base">On record</h2>
{#if newest.length === 0}
  <p class="opacity-80">Nothing yet. Lay the first piece on; keep it when the scale stands still.</p>
{:else}
  <ol class="mt-1" aria-label="On record">
    {#each newest as r (r.id)}
      <li
        class={[
          "grid grid-cols-[3.5rem_5rem_1fr_auto] items-center gap-x-3 border-b border-base-300 py-0.5",
          r.aside && "text-error",
        ]}
        data-record={r.number}
      >
        <span class="numeral">{r.number || "–"}</span>
        <span class={["text-lg numeral", r.aside && "line-through"]}>{g(r.shown_g)}</span>
        <span class="text-sm">{r.aside ? why[r.aside] : off(r.off_g)}</span>
        {#if !finished}
          <button
            class="min-h-11 cursor-pointer rounded px-3 text-sm underline underline-offset-4 hover:bg-base-200"
            onclick={() => onact(r.aside ? "count" : "set-aside", r.id)}
            >{r.aside ? "Count it" : "Set aside"}<span class="sr-only">, {g(r.shown_g)}</span></button
          >
        {/if}
      </li>
    {/each}
  </ol>
{/if}
