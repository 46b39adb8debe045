<!-- What went wrong with a cook: symptoms, the question that tells most, and causes with what mends them. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type FaultQuestion, type FaultSearch, type RankedCause } from "../../lib/api/client";
  import { phrase } from "../../lib/format";
  import { newVersion } from "../../lib/newVersion";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { navigate, route } from "../../router";
  import QuickField from "../heat/QuickField.svelte";
  import CauseRow from "./CauseRow.svelte";
  import { FaultTold } from "./search.svelte";

  const id = $derived(Number(route.params.id));
  const said = new FaultTold();
  const told = new Told();
  let noted = $state("");
  let busy = $state(false);
  type Asked = { id: number; question: FaultQuestion };
  const asked = new Resource<Asked, FaultSearch>(({ id, question }, signal) =>
    api.faults(id, { ...question, unit_system: units.system }, signal),
  );
  $effect(() => asked.ask({ id, question: said.asked }));
  onDestroy(() => asked.clear());
  const search = $derived(asked.value);
  const found = $derived(said.symptoms.length > 0 ? (search?.found ?? null) : null);
  const question = $derived(
    found?.question && !said.passed.includes(found.question.cause) ? found.question : null,
  );
  let all = $state(false);
  const shown = $derived(found ? found.causes.slice(0, all ? undefined : 5) : []);
  const degrees = (temp: number | null | undefined) =>
    temp == null
      ? ""
      : phrase({ text: "{t}", amounts: { t: { kind: "temp_c", value: temp, high: null } } }, units);
  const read = (text: string, set: (temp: number | null) => void) =>
    text ? told.read("temp_c", text, set) : told.run(async () => set(null));

  const make = (cause: RankedCause) =>
    told.run(async () => {
      const change = cause.change;
      if (!change || busy) return;
      busy = true;
      try {
        const cook = await api.cook(id);
        const made = await newVersion(cook.formula_id, change);
        await navigate(`/formula/:id/:step`, { params: { id: String(made), step: "notes" } });
      } finally {
        busy = false;
      }
    });
  const note = (cause: RankedCause) =>
    told.run(async () => {
      if (busy) return;
      busy = true;
      try {
        const cook = await api.cook(id);
        if (!cook.outcome) return;
        const before = cook.outcome.next_time?.trim() ?? "";
        if (!before.includes(cause.next_time)) {
          const next_time = before ? `${before} ${cause.next_time}` : cause.next_time;
          await api.saveOutcome(id, { ...cook.outcome, next_time: next_time.slice(0, 1000) }, cook.revision);
        }
        noted = `Noted with the cook: ${cause.next_time}`;
      } finally {
        busy = false;
      }
    });
</script>

<svelte:head><title>What went wrong? · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p>
      <a class="text-primary underline underline-offset-3" href={`/log/${id}`}
        >{search?.formula_name ?? "The cook"}</a
      >
    </p>
    <h1 class="mt-2 border-b-2 border-base-content pb-2 text-2xl">What went wrong?</h1>
    {#if asked.problem}<p role="alert" class="mt-3 text-error">{asked.problem.detail}</p>{/if}
    {#if told.problem}<p role="alert" class="mt-3 text-error">{told.problem}</p>{/if}
    {#if !search}
      {#if !asked.problem}<p class="mt-3 quiet" aria-busy="true">Reading the cook …</p>{/if}
    {:else}
      <fieldset class="mt-4">
        <legend class="font-semibold">What is wrong with it?</legend>
        <div class="mt-2 flex flex-wrap gap-2" data-faults={asked.busy ? "asking" : "ready"}>
          {#each search.symptoms as symptom (symptom.key)}
            {@const on = said.symptoms.includes(symptom.key)}
            <button
              class="act"
              aria-pressed={on}
              disabled={!on && said.symptoms.length >= search.most}
              onclick={() => said.toggle(symptom.key, search.most)}>{symptom.title}</button
            >
          {/each}
        </div>
      </fieldset>
      {#if !found}
        <p class="mt-4 max-w-[40rem] quiet">
          Name up to {search.most}. Causes follow from the formula as it was cooked and from what was weighed,
          measured and timed; then one question at a time.
        </p>
      {:else}
        <div class="mt-6 grid gap-x-10 gap-y-6 md:grid-cols-[minmax(0,0.85fr)_minmax(0,1.4fr)]">
          <div>
            {#if question}
              <section aria-label="The question that tells most" class="border-l-4 border-primary pl-3">
                <p class="text-lg font-semibold">{question.text}</p>
                <div class="mt-2 flex flex-wrap gap-2">
                  <button class="act-main" onclick={() => said.answer(question.cause, true)}
                    >{question.yes}</button
                  >
                  <button class="act-main" onclick={() => said.answer(question.cause, false)}
                    >{question.no}</button
                  >
                  <button
                    class="act min-h-12"
                    onclick={() => (said.passed = [...said.passed, question.cause])}>Cannot say</button
                  >
                </div>
              </section>
            {:else}
              <p class="quiet">No further question would tell much.</p>
            {/if}
            <section class="mt-6" aria-label="Measured">
              <h2 class="text-lg">Measured</h2>
              <p class="text-[0.875rem] quiet">What the record has stands here; add what you know.</p>
              <div class="mt-2 flex flex-wrap gap-3">
                <QuickField
                  label="Surface when laid on"
                  value={degrees(search.readings.surface_c)}
                  placeholder="not measured"
                  width="9rem"
                  oncommit={(text) => void read(text, (t) => (said.surface_c = t))}
                />
                <QuickField
                  label="Core at the end"
                  value={degrees(search.readings.core_c)}
                  placeholder="not measured"
                  width="9rem"
                  oncommit={(text) => void read(text, (t) => (said.core_c = t))}
                />
              </div>
            </section>
            {#if Object.keys(said.answers).length > 0}
              <section class="mt-6" aria-label="Answered">
                <h2 class="text-lg">Answered</h2>
                <ul class="mt-1">
                  {#each Object.entries(said.answers) as [cause, yes] (cause)}
                    {@const row = found.causes.find((one) => one.key === cause)}
                    <li class="flex items-baseline justify-between gap-3 border-b border-base-300 py-1">
                      <span class="text-[0.9375rem]"
                        >{row?.title ?? cause}: answered {yes ? "yes" : "no"}</span
                      >
                      <button class="act text-sm" onclick={() => said.takeBack(cause)}
                        >Take back<span class="sr-only">: {row?.title ?? cause}</span></button
                      >
                    </li>
                  {/each}
                </ul>
              </section>
            {/if}
          </div>
          <section aria-labelledby="causes">
            <h2 id="causes" class="border-b border-base-content pb-1 text-lg">Causes, the likeliest first</h2>
            <p role="status" class="text-sm text-success">{noted}</p>
            <ol>
              {#each shown as cause, place (cause.key)}
                <CauseRow {cause} {place} {busy} onmake={make} onnote={note} />
              {/each}
            </ol>
            {#if found.causes.length > shown.length}
              <button class="mt-3 act text-sm" onclick={() => (all = true)}
                >Show {found.causes.length - shown.length} more</button
              >
            {/if}
            <p class="mt-3 max-w-[36rem] text-[0.8125rem] quiet">
              Chances are of each cause by itself: several can be there at once. How often a cause makes a
              symptom is common practice put into figures, and ours.
            </p>
          </section>
        </div>
      {/if}
    {/if}
  </main>
</Shell>
