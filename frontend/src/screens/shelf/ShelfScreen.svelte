<!-- The shelf: one line to begin, and the formulas that stand there. -->
<script lang="ts">
  import { api, ProblemError, type Formula, type ShelfItem } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { refusalOf } from "../../lib/refusal";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { navigate } from "../../router";
  import BlendGlyph from "./BlendGlyph.svelte";
  import ImportFile from "../../lib/ui/ImportFile.svelte";
  import OpeningLine from "./OpeningLine.svelte";

  let items = $state.raw<ShelfItem[] | null>(null);
  let problem = $state<string | null>(null);
  let asking = $state<ShelfItem | null>(null);
  let archived = $state<ShelfItem | null>(null);

  $effect(() => {
    void load();
  });

  async function load(): Promise<void> {
    try {
      items = await api.formulas();
      problem = null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    }
  }
  async function add(formula: Formula): Promise<void> {
    const stored = await api.createFormula(formula);
    await navigate(`/formula/${stored.id}/meat` as "/");
  }
  async function remove(item: ShelfItem): Promise<void> {
    try {
      await api.deleteFormula(item.id);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    }
    asking = null;
    archived = item;
    await load();
  }
  async function restore(item: ShelfItem): Promise<void> {
    problem = await refusalOf(() => api.restoreFormula(item.id));
    archived = null;
    await load();
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
    {#if problem}
      <p role="alert" class="mt-3 text-error">
        {problem} <button class="ml-2 act" onclick={load}>Try again</button>
      </p>
    {:else if items == null}
      <p class="mt-3 quiet" aria-busy="true">Loading…</p>
    {:else if items.length === 0}
      <p class="mt-3 quiet">The shelf is empty. Type a line above, and the first formula stands here.</p>
    {/if}
    {#if archived}
      {@const item = archived}
      <p role="status" class="mt-3">
        {item.name} was archived. <button class="ml-2 act" onclick={() => restore(item)}>Restore</button>
      </p>
    {/if}
    {#if items}
      <ul>
        {#each items as item (item.id)}
          <li class="flex items-center gap-2 border-b border-base-300">
            <a
              href={`/formula/${item.id}/meat`}
              class="grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 py-2.5 hover:bg-paper sm:grid-cols-[5.5rem_minmax(0,1.4fr)_minmax(0,1fr)_6rem_8rem_8rem]"
            >
              <BlendGlyph strips={item.strips} />
              <span class="truncate text-[1.0625rem] font-semibold">{item.name}</span>
              <span class="quiet max-sm:hidden">{item.style}</span>
              <span class="text-right numeral"
                >{#if item.lean_to_fat}<Say text={item.lean_to_fat} />{/if}</span
              >
              <span class="text-right numeral max-sm:hidden"
                >{#if item.pieces}<Say text={item.pieces} />{/if}</span
              >
              <span class="text-right text-[0.8125rem] quiet narrow max-sm:hidden"
                >{moment(item.updated_at)}</span
              >
              {#if item.problem}
                <span class="col-span-full text-sm text-error sm:col-start-2"
                  >Not worked out: {item.problem}</span
                >
              {/if}
            </a>
            {#if asking?.id === item.id}
              <button class="act border-error text-sm text-error" onclick={() => remove(item)}
                >Archive {item.name}</button
              >
              <button class="act text-sm" onclick={() => (asking = null)}>Keep</button>
            {:else}
              <button
                class="min-h-10 cursor-pointer rounded px-2 text-sm quiet hover:bg-base-200"
                onclick={() => (asking = item)}>Archive<span class="sr-only">: {item.name}</span></button
              >
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </main>
</Shell>
