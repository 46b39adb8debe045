<!-- A blind tasting: who gets what, what they answered, and what that says. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, ProblemError, type TasterAnswer, type Tasting } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { route } from "../../router";
  import { chosen, KINDS, letter, ranked } from "./tastings";

  const id = $derived(Number(route.params.id));
  const asked = new Resource<number, Tasting>((n, signal) => api.tasting(n, signal));
  $effect(() => asked.ask(id));
  onDestroy(() => asked.clear());
  const sheet = $derived(asked.value);
  const kind = $derived(sheet ? KINDS[sheet.tasting.kind] : null);
  const told = new Told();
  let busy = $state(false);
  /** Ranks that are not whole yet, by taster. */
  let partly = $state<Record<number, number[]>>({});
  const given = (taster: number): readonly number[] =>
    partly[taster] ?? sheet?.tasting.answers?.find((a) => a.taster === taster)?.codes ?? [];
  const others = (taster: number) => (sheet?.tasting.answers ?? []).filter((a) => a.taster !== taster);

  const save = (answers: TasterAnswer[]) =>
    told.run(async () => {
      if (!sheet || busy) return;
      busy = true;
      try {
        asked.value = await api.answerTasting(sheet.id, answers, sheet.revision);
      } catch (error) {
        if (!(error instanceof ProblemError) || error.problem.status !== 409) throw error;
        // Somebody else wrote an answer down meanwhile: theirs stands, and this one is tapped again.
        asked.value = error.problem.current as Tasting;
        told.problem = "Another device wrote an answer down meanwhile. It is shown; tap yours again.";
      } finally {
        busy = false;
      }
    });
  async function tap(taster: number, code: number, codes: number): Promise<void> {
    if (!sheet) return;
    if (sheet.tasting.kind !== "ranking") return save(chosen(sheet, taster, code));
    const now = ranked(given(taster), code);
    if (now.length < codes) {
      const had = sheet.tasting.answers?.some((a) => a.taster === taster);
      partly = { ...partly, [taster]: now };
      if (had) await save(others(taster));
      return;
    }
    await save([...others(taster), { taster, codes: now }]);
    partly = Object.fromEntries(Object.entries(partly).filter(([key]) => Number(key) !== taster));
  }
  const rank = (taster: number, code: number) => given(taster).indexOf(code) + 1;
</script>

<svelte:head><title>Tasting · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-12 sm:px-6">
    {#if asked.problem && !sheet}
      <h1 class="text-2xl">This tasting is not here</h1>
      <p role="alert" class="mt-1 quiet">{asked.problem.detail}</p>
    {:else if !sheet || !kind}<p class="quiet" aria-busy="true">Fetching the sheet …</p>
    {:else}
      <p class="print:hidden">
        <a class="text-primary underline underline-offset-3" href={`/formula/${sheet.formula_id}/compare`}
          >{sheet.formula_name || "The formula"}</a
        >
      </p>
      <h1 class="mt-2 text-2xl">{kind.title} test</h1>
      <p class="border-b-2 border-base-content pb-2">{kind.asks}</p>
      {#if told.problem}<p role="alert" class="mt-3 text-error">{told.problem}</p>{/if}
      <section class="mt-4 print:hidden" aria-label="What it says" data-tasting={busy ? "saving" : "ready"}>
        {#if sheet.result}
          <p class={["text-lg font-semibold", !sheet.result.verdict.found && "font-normal"]}>
            <Say text={sheet.result.verdict.says} />
          </p>
          {#if sheet.result.says_best}<p class="text-lg"><Say text={sheet.result.says_best} />.</p>{/if}
          <div class="mt-2 flex flex-wrap items-end gap-x-9 gap-y-2">
            <Fact label="Answered">{sheet.result.answered} of {sheet.tasting.tasters}</Fact>
            <Fact label="By chance alone"><Qty kind="fine_frac" value={sheet.result.verdict.p_value} /></Fact>
            {#each sheet.result.tally as one (one.number)}
              <Fact label={one.name}
                >{#if one.mean_rank != null}<Qty
                    kind="number"
                    value={one.mean_rank}
                  />{:else}{one.count}{/if}</Fact
              >
            {/each}
          </div>
          <p class="mt-1.5 text-[0.875rem] quiet">
            <Say text={sheet.result.verdict.says_power} />. Below 5 % by chance alone counts as found.
          </p>
        {:else}
          <p class="quiet">
            Serve each taster the samples in the order of the row, under their codes. Tap what each answers.
          </p>
        {/if}
      </section>
      <section class="mt-6" aria-labelledby="answers">
        <div class="flex flex-wrap items-baseline justify-between gap-3 border-b border-base-content pb-1">
          <h2 id="answers" class="text-lg">Tasters</h2>
          <button class="act text-sm print:hidden" onclick={() => window.print()}>Print the sheet</button>
        </div>
        <ol>
          {#each sheet.places as place (place.taster)}
            <li
              class="grid grid-cols-[3rem_minmax(0,1fr)] items-center gap-x-3 border-b border-base-300 py-2"
              aria-label={`Taster ${place.taster}`}
            >
              <span class="text-right numeral quiet">{place.taster}</span>
              <div class="flex flex-wrap gap-2">
                {#each place.samples as sample (sample.code)}
                  {@const at = rank(place.taster, sample.code)}
                  <button
                    class="act min-h-12 min-w-24 text-lg numeral"
                    aria-pressed={at > 0}
                    onclick={() => void tap(place.taster, sample.code, place.samples.length)}
                    >{sample.code}{#if at > 0 && sheet.tasting.kind === "ranking"}<span
                        class="text-sm font-normal"
                        aria-label={`rank ${at}`}>{at}.</span
                      >{/if}</button
                  >
                {/each}
              </div>
            </li>
          {/each}
        </ol>
      </section>
      <details class="mt-6">
        <summary class="cursor-pointer py-1 font-semibold text-primary"
          >For whoever serves: which code is which</summary
        >
        <ul class="mt-1 flex flex-wrap gap-x-6">
          {#each sheet.tasting.versions as version, n (version.number)}
            <li><span class="numeral">{letter(n)}</span> {version.name}</li>
          {/each}
        </ul>
        <table class="mt-1">
          <tbody>
            {#each sheet.places as place (place.taster)}
              <tr class="border-t border-base-300">
                <th scope="row" class="py-1 pr-4 text-right numeral font-normal quiet">{place.taster}</th>
                {#each place.samples as sample (sample.code)}
                  <td class="py-1 pr-5 numeral">{sample.code} <b>{letter(sample.version)}</b></td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="mt-1 text-[0.8125rem] quiet">
          Every order is served as often as the others. Keep this from the tasters, and from yourself if you
          taste.
        </p>
      </details>
    {/if}
  </main>
</Shell>
