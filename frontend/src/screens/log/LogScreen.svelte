<!-- The logbook: every cook, newest first. -->
<script lang="ts">
  import { api, ProblemError, type CookLine } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";

  let cooks = $state.raw<CookLine[] | null>(null);
  let problem = $state<string | null>(null);
  $effect(() => {
    api.cooks().then(
      (all) => (cooks = all),
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        problem = error.problem.detail;
      },
    );
  });
</script>

<svelte:head><title>Logbook · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <h1 class="text-2xl">Logbook</h1>
      <a class="act text-sm" href="/checks">Checks</a>
    </div>
    {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>
    {:else if cooks == null}<p class="mt-3 quiet" aria-busy="true">Opening the logbook …</p>
    {:else if cooks.length === 0}
      <p class="mt-3 quiet">Nothing cooked yet. Open a formula, go to step 8 and press Cook.</p>
    {:else}
      <ul>
        {#each cooks as cook (cook.id)}
          <li class="border-b border-base-300">
            <a
              href={cook.finished_at ? `/log/${cook.id}` : `/stove/${cook.id}`}
              class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-6 gap-y-0.5 py-3 hover:bg-paper sm:grid-cols-[9rem_minmax(0,1fr)_8rem_minmax(0,1.4fr)]"
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
              <span class="truncate text-[0.875rem] quiet max-sm:col-span-2"
                >{cook.finished_at
                  ? cook.outcome?.next_time || cook.outcome?.note || "noted"
                  : "still at the stove"}</span
              >
            </a>
          </li>
        {/each}
      </ul>
    {/if}
  </main>
</Shell>
