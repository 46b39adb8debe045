<!-- The build sheet: one page to print and hang at the pass, the section to scale beside the list to tick. -->
<script lang="ts">
  import Printer from "@lucide/svelte/icons/printer";
  import { api, ProblemError, type Evaluation, type Formula } from "../../lib/api/client";
  import BuildPicture from "../../lib/ui/BuildPicture.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";

  const id = $derived(Number(route.params.id));
  let shown = $state.raw<{ formula: Formula; evaluation: Evaluation } | null>(null);
  let problem = $state<string | null>(null);

  $effect(() => {
    const now = id;
    void (async () => {
      try {
        const stored = await api.formula(now);
        const { evaluation } = await api.evaluate(stored.formula, [], units.system);
        shown = { formula: stored.formula, evaluation };
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        problem = error.problem.detail;
      }
    })();
  });
  const sheet = $derived(shown?.evaluation.beside ?? null);
  const parts = $derived(
    [
      { title: "Ready before", lines: sheet?.checklist.filter((line) => line.when === "before") ?? [] },
      { title: "Built from below", lines: sheet?.checklist.filter((line) => line.when === "build") ?? [] },
    ].filter((part) => part.lines.length > 0),
  );
</script>

<svelte:head><title>{shown ? `${shown.formula.name}, build` : "Build"} · Vianda</title></svelte:head>
<Shell here="Build">
  <main id="main" class="mx-auto w-full max-w-3xl px-4 pt-6 pb-12 sm:px-6 print:p-0">
    {#if problem}
      <h1 class="text-2xl">The build sheet cannot be written</h1>
      <p role="alert" class="mt-2">{problem}</p>
    {:else if !shown || !sheet}
      <p class="quiet" aria-busy="true">Loading…</p>
    {:else}
      <div class="mb-4 flex flex-wrap items-center justify-between gap-3 print:hidden">
        <a class="act" href={`/formula/${id}/sauce`}>Back to the bench</a>
        {#if parts.length > 0}<button class="act-main" onclick={() => window.print()}
            ><Printer size={18} /> Print</button
          >{/if}
      </div>
      <article class="poster bg-paper p-6 shadow-sm sm:p-8 print:bg-white print:p-0 print:shadow-none">
        <header class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
          <h1 class="text-[1.625rem] leading-tight">{shown.formula.name}</h1>
          <p class="text-[0.9375rem]">
            {sheet.builds} to build, <Qty kind="mass_g" value={sheet.build.mass_g} /> each,
            <Qty kind="length_mm" value={sheet.build.height_mm} /> high
          </p>
        </header>
        {#if parts.length === 0}
          <p class="mt-4">Nothing is built: it is served as it comes from the heat.</p>
        {:else}
          <div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 sm:grid-cols-2 print:grid-cols-2">
            <div>
              {#each parts as part (part.title)}
                <section aria-label={part.title} class="mb-5">
                  <h2 class="text-base">{part.title}</h2>
                  <ol>
                    {#each part.lines as line, n (n)}
                      <li class="flex gap-3 border-t border-base-300 py-1.5">
                        <span class="mt-1 size-4 shrink-0 border-2 border-base-content" aria-hidden="true"
                        ></span>
                        <span class="min-w-0 flex-1">
                          <span class="flex justify-between gap-3 leading-tight font-semibold"
                            ><span>{line.title}</span>{#if line.mass_g > 0}<span class="numeral"
                                ><Qty kind="mass_g" value={line.mass_g} /></span
                              >{/if}</span
                          >
                          <span class="block text-[0.8125rem] quiet"><Say text={line.how} /></span>
                        </span>
                      </li>
                    {/each}
                  </ol>
                </section>
              {/each}
            </div>
            <BuildPicture build={sheet.build} />
          </div>
          <p class="mt-2 border-t border-base-300 pt-3 text-[0.875rem]">
            {#if shown.evaluation.served.allergens.length > 0}Holds {shown.evaluation.served.allergens
                .map((a) => a.name)
                .join(", ")}. Labels decide; say so to those who must know.{/if}
          </p>
        {/if}
      </article>
    {/if}
  </main>
</Shell>
