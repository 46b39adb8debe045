<!-- The logbook: every cook, newest first; found by its words, dish, day, score and lot. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type LogChoices, type LogLine, type LogPage, type LogQuery } from "../../lib/api/client";
  import { utcOffsetMin } from "../../lib/days";
  import { moment } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { dishTitle } from "../dish/titles";

  const NOTHING = { text: "", dish: "", from_day: "", to_day: "", score: "", lot: "" };
  let sort = $state<NonNullable<LogQuery["sort"]>>("newest");
  let wanted = $state({ ...NOTHING });
  const query = $derived<LogQuery>({
    text: wanted.text.trim(),
    dish: wanted.dish,
    lot: wanted.lot,
    formula_id: null,
    from_day: wanted.from_day || null,
    to_day: wanted.to_day || null,
    least_score: wanted.score ? Number(wanted.score) : null,
    before: null,
    utc_offset_min: utcOffsetMin(wanted.from_day || wanted.to_day),
    sort,
  });
  const asked = new Resource<LogQuery, LogPage>((now, signal) => api.logbook(now, signal), { pauseMs: 250 });
  $effect(() => asked.ask(query));
  onDestroy(() => asked.clear());
  const page = $derived(asked.value);
  const total = $derived(page?.total ?? 0);
  const choices = new Resource<null, LogChoices>(() => api.logbookChoices());
  choices.ask(null);
  onDestroy(() => choices.clear());
  const dishes = $derived(choices.value?.dishes ?? []);
  const lots = $derived(choices.value?.lots ?? []);
  const told = new Told();
  /** Pages after the first, of the first page that they belong to. */
  let later = $state.raw<{ of: LogPage; pages: readonly LogPage[] } | null>(null);
  const pages = $derived(page ? [page, ...(later?.of === page ? later.pages : [])] : []);
  const lines = $derived(pages.flatMap((p) => p.lines));
  const next = $derived(pages.at(-1)?.next ?? null);
  const narrowed = $derived(Object.values(wanted).some((value) => value !== ""));
  const more = () =>
    told.run(async () => {
      if (!page || next === null) return;
      const found = await api.logbook({ ...query, before: next });
      later = { of: page, pages: [...(later?.of === page ? later.pages : []), found] };
    });
  const rest = $derived(total - lines.length);
  const said = (line: LogLine) => (line.finished_at ? line.remark || "noted" : "still at the stove");
</script>

<svelte:head><title>Logbook · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <h1 class="text-2xl">Logbook</h1>
      <div class="flex gap-2">
        <a class="act text-sm" href="/log/trends">Trends</a>
        <a class="act text-sm" href="/log/learnt">Learnt</a>
        <a class="act text-sm" href="/training">Practise</a>
        <a class="act text-sm" href="/checks">Checks</a>
      </div>
    </div>
    {#if page && (total > 0 || narrowed)}
      <search class="mt-3 flex flex-wrap items-end gap-3">
        <TextField
          label="Words"
          width="11.5rem"
          value={wanted.text}
          placeholder="crust, chuck, hotter"
          oninput={(t) => (wanted.text = t)}
        />
        {#if dishes.length > 1 || wanted.dish}<PickField
            label="Dish"
            width="8rem"
            value={wanted.dish}
            options={[{ key: "", title: "Any" }, ...dishes.map((key) => ({ key, title: dishTitle(key) }))]}
            onpick={(key) => (wanted.dish = key)}
          />{/if}
        <PickField
          label="As wanted"
          width="9rem"
          value={wanted.score}
          options={[
            { key: "", title: "Any" },
            ...["2", "3", "4", "4.5"].map((key) => ({ key, title: `${key} of 5 and more` })),
          ]}
          onpick={(key) => (wanted.score = key)}
        />
        {#if lots.length > 0}<PickField
            label="Lot"
            width="8rem"
            value={wanted.lot}
            options={[{ key: "", title: "Any" }, ...lots.map((lot) => ({ key: lot.key, title: lot.name }))]}
            onpick={(key) => (wanted.lot = key)}
          />{/if}
        <TextField
          label="From"
          type="date"
          width="8.75rem"
          value={wanted.from_day}
          oninput={(t) => (wanted.from_day = t)}
        />
        <TextField
          label="To"
          type="date"
          width="8.75rem"
          value={wanted.to_day}
          oninput={(t) => (wanted.to_day = t)}
        />
        <PickField
          label="Order"
          width="8rem"
          value={sort}
          options={[
            { key: "newest", title: "Newest" },
            { key: "best", title: "Best first" },
            { key: "worst", title: "Worst first" },
          ]}
          onpick={(key) => (sort = key as typeof sort)}
        />
        {#if narrowed}<button class="act h-[2.625rem] text-sm" onclick={() => (wanted = { ...NOTHING })}
            >Show all</button
          >{/if}
      </search>
      <p class="mt-2 text-[0.875rem] quiet" role="status" data-log={asked.busy ? "asking" : "ready"}>
        {total === 1 ? "1 cook" : `${total} cooks`}{wanted.lot ? "." : ""}
        {#if wanted.lot}<a
            class="text-primary underline underline-offset-3"
            href={`/lots/${encodeURIComponent(wanted.lot)}`}>Where this lot went</a
          >{/if}
        {#if total > 0}· as a file:
          {#each ["csv", "json"] as const as ending (ending)}<a
              class="ml-1.5 text-primary underline underline-offset-3"
              href={api.logbookPath(query, ending)}
              download>{ending.toUpperCase()}</a
            >{/each}{/if}
      </p>
    {/if}
    {#if asked.problem}<p role="alert" class="mt-3 text-error">{asked.problem.detail}</p>{/if}
    {#if !page}
      {#if !asked.problem}<p class="mt-3 quiet" aria-busy="true">Opening the logbook …</p>{/if}
    {:else if lines.length === 0}
      {#if narrowed}<p class="mt-4">No cook has all of that.</p>
      {:else}<p class="mt-3 quiet">Nothing cooked yet. Open a formula, go to step 8 and press Cook.</p>{/if}
    {:else}
      <div
        class="mt-1 hidden grid-cols-[9rem_minmax(0,1fr)_8rem_6.25rem_minmax(0,1.4fr)] gap-x-6 border-b border-base-300 pb-1 text-[0.75rem] quiet sm:grid"
        aria-hidden="true"
      >
        <span>Begun</span><span>Formula</span><span class="text-right">Pieces</span><span class="text-right"
          >As wanted, of 5</span
        ><span>Next time, or a note</span>
      </div>
      <ul aria-label="Cooks">
        {#each lines as cook (cook.cook_id)}
          <li class="border-b border-base-300">
            <a
              href={cook.finished_at ? `/log/${cook.cook_id}` : `/stove/${cook.cook_id}`}
              class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-6 gap-y-0.5 py-3 hover:bg-paper sm:grid-cols-[9rem_minmax(0,1fr)_8rem_6.25rem_minmax(0,1.4fr)]"
            >
              <span class="quiet narrow">{moment(cook.started_at)}</span>
              <span class="truncate font-semibold max-sm:order-first max-sm:col-span-2"
                >{cook.formula_name}</span
              >
              <span class="text-right numeral"
                ><Qty kind="count" value={cook.pieces} /> × <Qty
                  kind="mass_g"
                  value={cook.piece_mass_g}
                /></span
              >
              <span
                class="text-right numeral max-sm:hidden"
                title="How near the scores lie to what is wanted, of five"
                >{cook.score == null ? "" : cook.score.toFixed(1)}</span
              >
              <span class="truncate text-[0.875rem] quiet max-sm:col-span-2"
                >{#if cook.score != null}<span class="mr-2 numeral font-semibold sm:hidden"
                    >{cook.score.toFixed(1)}</span
                  >{/if}{said(cook)}</span
              >
            </a>
          </li>
        {/each}
      </ul>
      {#if told.problem}<p role="alert" class="mt-3 text-error">{told.problem}</p>{/if}
      {#if next !== null}<button class="mt-4 act" onclick={() => void more()}
          >Show {Math.min(rest, 50)} more of {rest}</button
        >{/if}
    {/if}
  </main>
</Shell>
