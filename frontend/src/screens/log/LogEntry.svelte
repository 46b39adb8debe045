<!-- One cook: what was planned, what happened, what was weighed, how it was, what to change. -->
<script lang="ts">
  import { api, ProblemError, type Cook } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { moment, time } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { route } from "../../router";
  import NextChange from "./NextChange.svelte";
  import OutcomeForm from "./OutcomeForm.svelte";
  import PhotographStrip from "./PhotographStrip.svelte";

  const id = $derived(Number(route.params.id));
  let cook = $state.raw<Cook | null>(null);
  let problem = $state<string | null>(null);
  $effect(() => {
    cook = null;
    api.cook(id).then(
      (got) => (cook = got),
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        problem = error.problem.detail;
      },
    );
  });
  const plan = $derived(cook?.plan ?? null);
  const taken = $derived(
    (plan?.blend.parts ?? [])
      .filter((part) => part.lot)
      .map((part) => ({
        lot: part.lot,
        name: part.lot_name,
        use_by: cook?.held.find((one) => one.lot === part.lot)?.use_by ?? "",
        mass_g: plan?.cost?.parts.find((line) => line.meat === part.meat)?.bought_g ?? part.mass_g,
      })),
  );
  const found = $derived(cook?.outcome_figures ?? null);
  const steps = $derived.by(() => {
    if (!cook || !plan) return [];
    const all = [
      ...plan.stove.before.map((step) => ({ step, wave: 0 })),
      ...Array.from({ length: plan.stove.waves }, (_, w) =>
        plan.stove.each_wave.map((step) => ({ step, wave: w + 1 })),
      ).flat(),
      ...plan.stove.after.map((step) => ({ step, wave: 0 })),
    ];
    return cook.events.map((event) => ({ event, at: all[event.place] ?? null }));
  });
</script>

{#snippet expected(kind: "frac" | "length_mm", band: { low: number; high: number }, within: boolean)}
  <p class={["mt-0.5 text-[0.8125rem]", within ? "quiet" : "font-semibold text-warning"]}>
    {within ? "as expected," : "expected"}
    <Qty {kind} value={band.low} high={band.high} />
  </p>
{/snippet}

<svelte:head
  ><title>{cook ? `${cook.formula_name}, ${moment(cook.started_at)}` : "Logbook"} · Vianda</title
  ></svelte:head
>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-7 pb-12 sm:px-6">
    {#if problem}<p role="alert" class="text-error">{problem}</p>
    {:else if !cook || !plan}<p class="quiet" aria-busy="true">Opening the page …</p>
    {:else}
      <div
        class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 border-b-2 border-base-content pb-2"
      >
        <h1 class="text-2xl">{cook.formula_name}</h1>
        <p class="quiet">
          {moment(cook.started_at)}{cook.begun_by ? `, begun by ${cook.begun_by}` : ""} · {cook.finished_at
            ? cook.noted_by && cook.noted_by !== cook.begun_by
              ? `finished, noted by ${cook.noted_by}`
              : "finished"
            : "still at the stove"} ·
          <a class="text-primary underline underline-offset-3" href={`/formula/${cook.formula_id}/notes`}
            >to the formula</a
          >{#if cook.finished_at}&nbsp;·
            <a class="text-primary underline underline-offset-3" href={`/log/${cook.id}/wrong`}
              >what went wrong?</a
            >{/if}
        </p>
      </div>
      <dl class="flex flex-wrap gap-x-8 gap-y-2 border-b border-base-300 py-3">
        {#each plan.ticket as figure (figure.id)}
          <div>
            <dt class="text-[0.75rem] quiet">{figure.label}</dt>
            <dd class="text-[1.1875rem] numeral"><Say text={figure.value} /></dd>
          </div>
        {/each}
      </dl>
      {#if cook.finished_at && taken.length > 0}
        <p class="border-b border-base-300 py-3 text-[0.9375rem]">
          Taken from the larder:
          {#each taken as line, at (line.lot)}{at > 0 ? "; " : ""}<span class="numeral"
              ><Qty kind="mass_g" value={line.mass_g} /></span
            >
            of
            <a
              class="underline decoration-base-300 decoration-2 underline-offset-4"
              href={`/lots/${encodeURIComponent(line.lot)}`}>{line.name}</a
            >{line.use_by ? `, use by ${dayName(line.use_by)}` : ""}{/each}.
        </p>
      {/if}
      {#key cook.id}<PhotographStrip cook_id={cook.id} />{/key}
      {#if found && (found.cooked_yield_frac != null || found.diameter_shrink_frac != null || found.cooked_thickness_mm != null)}
        <section
          aria-label="As weighed"
          class="flex flex-wrap items-start gap-x-10 gap-y-3 border-b border-base-300 py-3"
        >
          {#if found.cooked_yield_frac != null && found.cooked_piece_g != null}
            <div>
              <Fact label="Yield"><Qty kind="frac" value={found.cooked_yield_frac} /></Fact>
              {@render expected("frac", plan.shape.cooked_yield_frac, found.yield_expected ?? true)}
            </div>
            <Fact label="A cooked piece"><Qty kind="mass_g" value={found.cooked_piece_g} /></Fact>
          {/if}
          {#if found.diameter_shrink_frac != null}<Fact label="Drew in by"
              ><Qty kind="frac" value={found.diameter_shrink_frac} /></Fact
            >{/if}
          {#if found.cooked_thickness_mm != null}
            <div>
              <Fact
                label={cook.measures?.find((m) => m.key === "cooked_thickness_mm")?.title ??
                  "Thickness, cooked"}><Qty kind="length_mm" value={found.cooked_thickness_mm} /></Fact
              >
              {@render expected(
                "length_mm",
                plan.shape.cooked_thickness_mm,
                found.thickness_expected ?? true,
              )}
            </div>
          {/if}
        </section>
      {/if}
      <div class="mt-5 grid gap-x-10 gap-y-8 md:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        {#key cook.revision}<OutcomeForm {cook} onsaved={(now) => (cook = now)} />{/key}
        <div>
          {#if cook.finished_at}{#key cook.revision}<NextChange formula_id={cook.formula_id} />{/key}{/if}
          <section class="mt-8 first:mt-0">
            <h2 class="text-lg">At the stove</h2>
            {#if steps.length === 0}<p class="mt-1 quiet">No step was reported.</p>{/if}
            <ol class="mt-1">
              {#each steps as { event, at } (event.token)}
                <li class="grid grid-cols-[4rem_1fr] border-b border-base-300 py-1.5 text-[0.9375rem]">
                  <span class="numeral quiet">{time(event.since_start_s)}</span>
                  <span>
                    {#if event.kind === "probe"}Core read <Qty kind="temp_c" value={event.value ?? 0} />
                    {:else if event.kind === "surface"}Surface read <Qty
                        kind="temp_c"
                        value={event.value ?? 0}
                      />
                    {:else if event.kind === "extra"}{event.value} s more
                    {:else if event.kind === "back"}One step back
                    {:else}{at?.step.done_word ?? "Done"}{at && at.wave > 0 && plan.stove.waves > 1
                        ? `, wave ${at.wave}`
                        : ""}{/if}
                  </span>
                </li>
              {/each}
            </ol>
          </section>
        </div>
      </div>
    {/if}
  </main>
</Shell>
