<!-- A typed line shown back as it was read: each piece underlined, its meaning below it, other readings by a tap. -->
<script lang="ts">
  import type { ReadPiece } from "../api/client";
  import { segmentsOf } from "../marked";
  import Say from "./Say.svelte";

  interface Props {
    text: string;
    pieces: readonly ReadPiece[];
    onreplace: (text: string) => void;
    label?: string;
    /** The text has changed since it was read: its pieces are shown, but offer nothing. */
    stale?: boolean;
  }
  let { text, pieces, onreplace, label = "How the line was read", stale = false }: Props = $props();
  const uid = $props.id();
  let open = $state<number | null>(null);
  const segments = $derived(segmentsOf(text, pieces));
  const chosen = $derived(open == null ? null : (pieces[open] ?? null));
  $effect(() => {
    // Another line has other pieces.
    void text;
    open = null;
  });
</script>

<div role="group" aria-label={label} class="leading-none">
  <div class="-ml-1 flex flex-wrap items-start gap-x-2 gap-y-2.5">
    {#each segments as segment, at (at)}
      {#if segment.piece == null}
        <span class="pt-2 text-[1.0625rem] text-quiet">{segment.text}</span>
      {:else}
        {@const piece = pieces[segment.piece]!}
        {@const unread = piece.status === "unread"}
        <button
          type="button"
          disabled={stale}
          class={["mark", unread && "mark-unread", piece.status === "assumed" && "mark-assumed"]}
          aria-expanded={open === segment.piece}
          aria-controls={`${uid}-other`}
          onclick={() => (open = open === segment.piece ? null : segment.piece)}
        >
          <span class="mark-said">{segment.text}</span>
          {#if segment.first}
            <span class="mark-means"
              >{#if unread}<span class="sr-only">not read: </span>{/if}<Say text={piece.label} /></span
            >
          {/if}
        </button>
      {/if}
    {/each}
  </div>
  <div id={`${uid}-other`}>
    {#if chosen}
      <div class="mt-3 flex flex-wrap items-center gap-2 border-l-4 border-base-content/60 py-1 pl-3">
        <span class="mr-1 text-[0.9375rem]">Not so? “{chosen.text}” is</span>
        {#each chosen.alternatives as other, n (n)}
          <button type="button" class="act text-sm" disabled={stale} onclick={() => onreplace(other.text)}
            ><Say text={other.label} /></button
          >
        {/each}
      </div>
    {/if}
  </div>
</div>

<style>
  .mark {
    display: inline-flex;
    min-height: 2.75rem;
    max-width: 100%;
    cursor: pointer;
    flex-direction: column;
    align-items: flex-start;
    padding: 0.375rem 0.25rem 0.125rem;
    border-radius: 0.25rem;
    text-align: left;
  }
  .mark:hover {
    background: var(--color-base-200);
  }
  .mark-said {
    border-bottom: 3px solid var(--color-primary);
    padding-bottom: 0.25rem;
    font-size: 1.0625rem;
    font-weight: 600;
    line-height: 1.2;
  }
  .mark-means {
    margin-top: 0.3rem;
    max-width: 15rem;
    font-size: 0.75rem;
    line-height: 1.2;
    color: var(--color-quiet);
  }
  .mark-assumed .mark-said {
    border-bottom-style: dashed;
  }
  .mark-unread .mark-said {
    border-bottom: 3px double var(--color-error);
    color: var(--color-error);
  }
  .mark-unread .mark-means {
    color: var(--color-error);
  }
</style>
