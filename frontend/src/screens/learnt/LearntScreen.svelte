<!-- What the kitchen has learnt from its cooks: each factor with where it began, what was seen, and what follows. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Datum, type Learning, type Learnt, type LearntFat } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { moment } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import FactorPicture from "./FactorPicture.svelte";
  import FatSection from "./FatSection.svelte";
  import { times } from "./factorScale";
  import ScoreTable from "./ScoreTable.svelte";

  const asked = new Resource<null, Learning>((_, signal) => api.learning(signal));
  asked.ask(null);
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const told = new Told();
  let said = $state("");

  const figures = $derived(
    [...new Map((found?.learnt ?? []).map((row) => [row.figure, row.title]))].map(([figure, title]) => ({
      figure,
      title,
      rows: (found?.learnt ?? []).filter((row) => row.figure === figure),
    })),
  );
  const cooks = $derived(new Map((found?.cooks ?? []).map((cook) => [cook.cook_id, cook])));
  const runs = $derived(new Map((found?.runs ?? []).map((run) => [run.run_id, run])));
  const KINDS = {
    loss: "frac",
    shrink: "frac",
    heat: "time_s",
    minutes: "minutes",
    evaporation: "minutes",
    bowl: "mass_g",
  } as const;
  /** Where an observation comes from: a cook of the logbook, or of minutes a service under way. */
  function source(row: Learnt, seen: Datum): { href: string; when: string; name: string } {
    const run = row.figure === "minutes" ? runs.get(seen.cook) : undefined;
    if (run)
      return {
        href: `/services/${run.service_id}/checks/${run.day}`,
        when: dayName(run.day),
        name: run.service_name,
      };
    if (row.figure === "bowl")
      return { href: `/weigh/${seen.cook}`, when: `Weighing ${seen.cook}`, name: "Check-weighing" };
    if (row.figure === "evaporation") return { href: "", when: `Pot ${seen.cook}`, name: "" };
    const cook = cooks.get(seen.cook);
    const when = cook ? moment(cook.started_at) : `cook ${seen.cook}`;
    return { href: `/log/${seen.cook}`, when, name: cook?.formula_name ?? "" };
  }
  const keyOf = (row: Learnt) => `${row.figure}/${row.level}/${row.key}`;

  const put = (row: Learnt, factor: number) =>
    told.run(async () => {
      if (!found) return;
      const { figure, level, key } = row;
      asked.value = await api.useFactor({ figure, level, key, factor, revision: found.revision });
      said = `${row.name}: ${times(factor)} is in use. Forecasts follow from now on.`;
    });
  const useFat = (fat: LearntFat, use: boolean) =>
    void told.run(async () => {
      if (!found) return;
      asked.value = await api.useFat({ meat: fat.meat, use, revision: found.revision });
      said = use
        ? `${fat.name}: its range is in use. Blends follow from now on.`
        : `${fat.name}: by the table.`;
    });
  const leave = (row: Learnt, seen: Datum) =>
    told.run(async () => {
      const { cook, piece, aside } = seen;
      asked.value = await api.leaveOut({ figure: row.figure, cook, piece, aside: !aside });
      said = aside ? "It counts again." : "It is left out.";
    });
  const standing = (seen: Datum) => (seen.aside ? "left out" : seen.outlier ? "outlier, left out" : "counts");
</script>

<svelte:head><title>Learnt · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p><a class="text-primary underline underline-offset-3" href="/log">Logbook</a></p>
    <h1 class="mt-2 text-2xl">Learnt from your cooks</h1>
    <p class="mt-1 max-w-[44rem] quiet">
      Tables and the heat model are where a kitchen starts. Each weighing, measurement, probe reading and
      timed task moves a factor as far as it is worth; nothing is used before you say so.
    </p>
    <p role="status" class="mt-2 min-h-5 text-sm text-success">{said}</p>
    {#if told.problem}<p role="alert" class="text-error">{told.problem}</p>{/if}
    {#if asked.problem}<p role="alert" class="text-error">{asked.problem.detail}</p>{/if}
    {#if !found}
      {#if !asked.problem}<p class="quiet" aria-busy="true">Putting it together …</p>{/if}
    {:else if figures.length === 0 && found.fats.length === 0}
      <p class="mt-4 max-w-[40rem]">Nothing yet: no finished cook was weighed, measured or probed.</p>
      <p class="mt-1 max-w-[40rem] quiet">
        Weigh all that comes off and write it down when you finish a cook; take one probe reading at the stove
        while a wave is on. Both stand here after the first cook. What is begun and ended in a service under
        way teaches how long your hands take, a tested delivery how fat a cut comes, a pot that was timed how
        fast it boils down, and what is left after weighing how much a bowl keeps.
      </p>
    {:else}
      <p
        class="flex flex-wrap items-center gap-x-5 gap-y-1 text-[0.8125rem] quiet"
        aria-hidden="true"
        data-learnt="ready"
      >
        <span class="flex items-center gap-1.5"
          ><i class="inline-block h-2.5 w-7 bg-[var(--color-kraft)]"></i>before, 8 in 10</span
        >
        <span class="flex items-center gap-1.5"
          ><i class="inline-block h-1.5 w-7 bg-primary"></i>now, 8 in 10</span
        >
        <span class="flex items-center gap-1.5"
          ><i class="inline-block size-2 rounded-full bg-base-content/55"></i>one reading</span
        >
        <span class="flex items-center gap-1.5"
          ><i class="inline-block size-2 rounded-full border border-base-content"></i>left out</span
        >
        <span class="flex items-center gap-1.5"
          ><i class="inline-block border-x-[5px] border-t-[7px] border-x-transparent border-t-base-content"
          ></i>in use</span
        >
      </p>
      {#each figures as { figure, title, rows } (figure)}
        <section class="mt-7" aria-labelledby="learnt-{figure}">
          <h2 id="learnt-{figure}" class="border-b-2 border-base-content pb-1 text-lg">{title}</h2>
          <p class="mt-1 max-w-[44rem] text-[0.875rem] quiet">{rows[0]?.line}</p>
          <ul>
            {#each rows as row (keyOf(row))}
              <li class="border-b border-base-300 py-3" aria-label={row.name}>
                <div
                  class="grid items-center gap-x-6 gap-y-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)_5.5rem_9.5rem]"
                >
                  <div>
                    <p class="font-semibold">
                      {row.name}
                      {#if row.level === "style" || row.level === "surface"}<span class="font-normal quiet"
                          >{row.level}</span
                        >{/if}
                    </p>
                    <p class="text-[0.875rem] quiet"><Say text={row.says} /></p>
                  </div>
                  <FactorPicture {row} />
                  <p class="sm:text-right">
                    <span class="text-lg numeral">{times(row.posterior.usual)}</span>
                    <span class="block text-[0.75rem] quiet max-sm:inline"
                      >{row.posterior.low.toFixed(2)} to {row.posterior.high.toFixed(2)}</span
                    >
                  </p>
                  <div class="flex flex-col items-stretch gap-1 max-sm:flex-row">
                    {#if row.news}
                      <button
                        class={row.sure ? "act-main" : "act"}
                        onclick={() => void put(row, row.proposed)}>Use {times(row.proposed)}</button
                      >
                    {:else if row.in_use !== 1}
                      <p class="text-sm sm:text-center">{times(row.in_use)} is in use</p>
                    {/if}
                    {#if row.in_use !== 1}
                      <button class="act text-sm" onclick={() => void put(row, 1)}>Back to {times(1)}</button>
                    {/if}
                  </div>
                </div>
                <details class="mt-1">
                  <summary class="cursor-pointer py-1 text-[0.875rem] text-primary"
                    >What was seen: {row.counted} of {row.data.length}
                    {row.data.length === 1 ? "reading counts" : "readings count"}</summary
                  >
                  <div class="overflow-x-auto">
                    <table class="mt-1 w-full text-[0.875rem]">
                      <thead class="text-left text-[0.75rem] quiet">
                        <tr
                          ><th class="py-1 pr-4 font-normal">When</th>
                          <th class="pr-4 font-normal">{row.figure === "minutes" ? "Service" : "Formula"}</th>
                          <th class="pr-4 text-right font-normal">Forecast</th>
                          <th class="pr-4 text-right font-normal">Seen</th>
                          <th class="pr-4 text-right font-normal">Asks for</th>
                          <th class="pr-4 font-normal">State</th>
                          <th></th></tr
                        >
                      </thead>
                      <tbody>
                        {#each [...row.data].reverse() as seen (`${seen.cook}.${seen.piece}`)}
                          {@const from = source(row, seen)}
                          <tr class="border-t border-base-300">
                            <td class="py-1.5 pr-4 whitespace-nowrap narrow"
                              >{#if from.href}<a
                                  class="text-primary underline underline-offset-3"
                                  href={from.href}>{from.when}</a
                                >{:else}{from.when}{/if}</td
                            >
                            <td class="pr-4">{from.name}</td>
                            <td class="pr-4 text-right numeral"
                              ><Qty kind={KINDS[row.figure]} value={seen.forecast} /></td
                            >
                            <td class="pr-4 text-right numeral"
                              ><Qty kind={KINDS[row.figure]} value={seen.observed} /></td
                            >
                            <td class="pr-4 text-right numeral">{times(seen.factor.usual)}</td>
                            <td class={["pr-4", seen.outlier && !seen.aside && "text-warning"]}
                              >{standing(seen)}</td
                            >
                            <td class="py-1 text-right"
                              ><button class="act text-sm" onclick={() => void leave(row, seen)}
                                >{seen.aside ? "Count it" : "Leave out"}</button
                              ></td
                            >
                          </tr>
                        {/each}
                      </tbody>
                    </table>
                  </div>
                  <p class="mt-1 text-[0.75rem] quiet">Starting point: {row.source}.</p>
                </details>
              </li>
            {/each}
          </ul>
        </section>
      {/each}
      {#if found.fats.length > 0}<FatSection fats={found.fats} use={useFat} />{/if}
      {#if found.scores.length > 0}<ScoreTable scores={found.scores} />{/if}
    {/if}
  </main>
</Shell>
