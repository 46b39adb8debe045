<!-- The shelf: one line to begin, and the formulas that stand there. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Formula } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import ImportFile from "../../lib/ui/ImportFile.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { navigate } from "../../router";
  import { dishTitle } from "../dish/titles";
  import OpeningLine from "./OpeningLine.svelte";
  import { Shelf, type Order } from "./shelf.svelte";
  import ShelfRow from "./ShelfRow.svelte";

  const shelf = new Shelf();
  $effect(() => shelf.ask());
  onDestroy(() => shelf.first.clear());
  const page = $derived(shelf.first.value);
  const total = $derived(page?.total ?? 0);
  const away = $derived(page?.archived ?? 0);
  const dishes = $derived(page?.dishes ?? []);
  const rest = $derived(total - shelf.items.length);

  async function add(formula: Formula): Promise<void> {
    const stored = await api.createFormula(formula);
    await navigate(`/formula/${stored.id}/meat` as "/");
  }
</script>

<svelte:head><title>Shelf · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    {#if kitchens.current?.demo}
      <p class="mb-5 flex flex-wrap items-center gap-x-4 border-l-4 border-base-300 pl-3 text-sm quiet">
        Demo kitchen: everything in it is invented.
        <a class="py-1 text-primary underline underline-offset-3" href="/first"
          >Set up a kitchen of your own</a
        >
      </p>
    {/if}
    <OpeningLine onbench={add} />

    <div class="mt-9 flex items-end justify-between gap-4 border-b-2 border-base-content pb-1.5">
      <h2 class="text-lg">On the shelf</h2>
      <span class="flex items-center gap-3"
        ><a class="act text-sm" href="/services">Services</a><ImportFile /></span
      >
    </div>
    {#if page && (total > 0 || shelf.narrowed || away > 0)}
      <search class="mt-3 flex flex-wrap items-end gap-3">
        <TextField
          label="Words"
          width="14rem"
          value={shelf.text}
          placeholder="smash, chuck, onion"
          oninput={(text) => (shelf.text = text)}
        />
        {#if dishes.length > 1 || shelf.dish}<PickField
            label="Dish"
            width="8rem"
            value={shelf.dish}
            options={[{ key: "", title: "Any" }, ...dishes.map((key) => ({ key, title: dishTitle(key) }))]}
            onpick={(key) => (shelf.dish = key)}
          />{/if}
        <PickField
          label="Order"
          width="8rem"
          value={shelf.sort}
          options={[
            { key: "touched", title: "Changed last" },
            { key: "newest", title: "Newest" },
            { key: "name", title: "By name" },
          ]}
          onpick={(key) => (shelf.sort = key as Order)}
        />
        {#if away > 0 || shelf.archived}<button
            class="act h-[2.625rem] text-sm"
            aria-pressed={shelf.archived}
            onclick={() => shelf.turn()}>Archived, {away}</button
          >{/if}
        {#if shelf.narrowed}<button class="act h-[2.625rem] text-sm" onclick={() => shelf.showAll()}
            >Show all</button
          >{/if}
      </search>
      <p class="mt-2 text-[0.875rem] quiet" role="status" data-shelf={shelf.first.busy ? "asking" : "ready"}>
        {total === 1 ? "1 formula" : `${total} formulas`}{shelf.archived ? ", archived" : ""}
      </p>
    {/if}
    {#if shelf.problem}<p role="alert" class="mt-3 text-error">{shelf.problem}</p>{/if}
    {#if shelf.first.problem}
      <p role="alert" class="mt-3 text-error">
        {shelf.first.problem.detail} <button class="ml-2 act" onclick={() => shelf.ask()}>Try again</button>
      </p>
    {:else if !page}
      <p class="mt-3 quiet" aria-busy="true">Loading…</p>
    {:else if total === 0}
      <p class="mt-3">
        {#if shelf.narrowed}<span>No formula has all of that.</span>
        {:else if shelf.archived}<span class="quiet">Nothing is archived.</span>
        {:else}<span class="quiet"
            >The shelf is empty. Type a line above, and the first formula stands here.</span
          >{/if}
      </p>
    {/if}
    {#if shelf.done}
      {@const { what, item } = shelf.done}
      <p role="status" class="mt-3">
        {#if what === "archived"}{item.name} was archived.
          <button class="ml-2 act" onclick={() => shelf.restore(item)}>Restore</button>
        {:else}Copied as <a
            class="font-semibold text-primary underline underline-offset-3"
            href={`/formula/${item.id}/dish`}>{item.name}</a
          >.{/if}
      </p>
    {/if}
    {#if shelf.items.length > 0}
      <ul aria-label={shelf.archived ? "Archived formulas" : "Formulas"} class="mt-1">
        {#each shelf.items as item (item.id)}
          <ShelfRow
            {item}
            archived={shelf.archived}
            oncopy={() => void shelf.copy(item)}
            onarchive={() => void shelf.archive(item)}
            onrestore={() => void shelf.restore(item)}
          />
        {/each}
      </ul>
      {#if shelf.next !== null}<button class="mt-4 act" onclick={() => void shelf.more()}
          >Show {Math.min(rest, 50)} more of {rest}</button
        >{/if}
    {/if}
  </main>
</Shell>
