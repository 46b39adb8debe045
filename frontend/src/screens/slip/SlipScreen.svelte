<!-- The butcher slip: one page to print or show, and a week's specification for a supplier. -->
<script lang="ts">
  import Printer from "@lucide/svelte/icons/printer";
  import {
    api,
    ProblemError,
    type Evaluation,
    type Formula,
    type Sheets,
    type StoredKitchen,
  } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";

  const id = $derived(Number(route.params.id));
  let shown = $state.raw<{
    formula: Formula;
    evaluation: Evaluation;
    slip: Sheets["slip"];
    arrival: Sheets["arrival"];
    kitchen: StoredKitchen;
  } | null>(null);
  let problem = $state<string | null>(null);

  $effect(() => {
    const now = id;
    void (async () => {
      try {
        const [stored, kitchen] = await Promise.all([api.formula(now), api.kitchen()]);
        const [{ evaluation }, { slip, arrival }] = await Promise.all([
          api.evaluate(stored.formula, [], units.system),
          api.sheets(stored.formula, units.system),
        ]);
        shown = { formula: stored.formula, evaluation, slip, arrival, kitchen };
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        problem = error.problem.detail;
      }
    })();
  });
  const today = new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });
</script>

<svelte:head><title>{shown ? `${shown.formula.name}, slip` : "Slip"} · Vianda</title></svelte:head>
<Shell here="Slip">
  <main id="main" class="mx-auto w-full max-w-3xl px-4 pt-6 pb-12 sm:px-6 print:p-0">
    {#if problem}
      <h1 class="text-2xl">The slip cannot be written</h1>
      <p role="alert" class="mt-2">{problem}</p>
    {:else if !shown}
      <p class="quiet" aria-busy="true">Loading…</p>
    {:else}
      {@const slip = shown.slip}
      <div class="mb-4 flex flex-wrap items-center justify-between gap-3 print:hidden">
        <a class="act" href={`/formula/${id}/meat`}>Back to the bench</a>
        <button class="act-main" onclick={() => window.print()}><Printer size={18} /> Print</button>
      </div>
      <article class="bg-paper p-6 shadow-sm sm:p-8 print:bg-white print:p-0 print:shadow-none">
        <header class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
          <div>
            <p class="text-[0.8125rem] quiet">Blend for {shown.kitchen.kitchen.name}</p>
            <h1 class="text-[1.625rem] leading-tight">{shown.formula.name}</h1>
          </div>
          <p class="text-[0.9375rem]">{today}</p>
        </header>
        <table class="mt-4 w-full">
          <thead>
            <tr class="border-b border-base-300 text-left text-[0.8125rem] quiet">
              <th class="py-1 font-normal">Meat, trimmed of bone and silverskin</th><th
                class="px-2 text-right font-normal">Share</th
              ><th class="px-2 text-right font-normal">One batch</th><th class="pl-2 text-right font-normal"
                >A week, {slip.services_per_week} ×
              </th>
            </tr>
          </thead>
          <tbody>
            {#each slip.lines as line, at (at)}
              <tr class="border-b border-base-300 text-[1.125rem]">
                <td class="py-2 font-semibold">{line.name}</td>
                <td class="px-2 text-right numeral"><Qty kind="fine_frac" value={line.share_frac} /></td>
                <td class="px-2 text-right numeral"><Qty kind="mass_g" value={line.trimmed_g} /></td>
                <td class="pl-2 text-right numeral"><Qty kind="mass_g" value={line.week_trimmed_g} /></td>
              </tr>
            {/each}
          </tbody>
        </table>
        <dl class="mt-5 grid gap-x-8 gap-y-3 sm:grid-cols-2">
          <div>
            <dt class="text-[0.8125rem] quiet">Grind</dt>
            <dd class="text-[1.125rem] font-semibold">
              {#if slip.plate_mm > 0}<Qty kind="length_mm" value={slip.plate_mm} /> plate, {slip.passes === 2
                  ? "twice, chilled between"
                  : "once"}{:else}as it comes{/if}
            </dd>
            <dd class="text-[0.9375rem]">
              Mix the cubes before grinding. Hold at <Qty kind="temp_c" value={0} high={4} />.
            </dd>
          </div>
          <div>
            <dt class="text-[0.8125rem] quiet">Lean to fat wanted</dt>
            <dd class="text-[1.125rem] font-semibold">
              <Qty kind="lean_to_fat" value={slip.fat_frac} /> by mass
            </dd>
            <dd class="text-[0.9375rem]">
              that is <Qty kind="fine_frac" value={slip.fat_frac} /> fat; from these cuts
              <Qty kind="frac" value={slip.fat_low_frac} high={slip.fat_high_frac} /> nine times in ten
            </dd>
          </div>
          {#if slip.portioned}<div>
              <dt class="text-[0.8125rem] quiet">If you portion it</dt>
              <dd class="text-[1.125rem] font-semibold">
                {slip.pieces} × <Qty kind="mass_g" value={slip.piece_mass_g} />, ± <Qty
                  kind="mass_g"
                  value={slip.piece_tolerance_g}
                />
              </dd>
              <dd class="text-[0.9375rem]">Loose, between papers, boxed cold.</dd>
            </div>{/if}
          <div>
            <dt class="text-[0.8125rem] quiet">On the label</dt>
            <dd class="text-[1.125rem] font-semibold">
              {shown.evaluation.names.find((n) => n.allowed)?.name ?? "no protected name"}
            </dd>
            <dd class="text-[0.9375rem]">Date ground, use-by, and the lot of each cut on every box.</dd>
          </div>
          <div>
            <dt class="text-[0.8125rem] quiet">Taken in when</dt>
            <dd class="text-[1.125rem] font-semibold">
              fat <Qty
                kind="frac"
                value={shown.evaluation.style.fat_band_frac[0]}
                high={shown.evaluation.style.fat_band_frac[1]}
              />, at most <Qty kind="temp_c" value={shown.arrival.most_c} />
            </dd>
            <dd class="text-[0.9375rem]">
              A sample of <Qty kind="mass_g" value={slip.sample_g} /> is cooked out and weighed from each delivery.
              {shown.arrival.source}.
            </dd>
          </div>
          <div>
            <dt class="text-[0.8125rem] quiet">By the week</dt>
            <dd class="text-[1.125rem] font-semibold">
              <Qty kind="mass_g" value={slip.week_mass_g} />{slip.portioned
                ? `, ${slip.week_pieces} pieces`
                : ""}
            </dd>
            <dd class="text-[0.9375rem]">
              {slip.portioned ? "pieces × weight" : "the batch"} × {slip.services_per_week}
              {slip.services_per_week === 1 ? "service" : "services"}
            </dd>
          </div>
        </dl>
        <p class="mt-6 border-t border-base-300 pt-3 text-[0.875rem]">
          No water, salt, binder or extender; the cuts as named, so that the ratio holds. Local rules on
          names, dates and temperatures apply.
        </p>
      </article>
    {/if}
  </main>
</Shell>
