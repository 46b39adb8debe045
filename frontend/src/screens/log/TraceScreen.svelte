<!-- Where a lot went: as it was delivered, every cook that held it, and what is left; one page to print. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type LotTrace } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { moment } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { route } from "../../router";

  const key = $derived(String(route.params.key));
  const asked = new Resource<string, LotTrace>((lot, signal) => api.traceLot(lot, signal));
  $effect(() => asked.ask(key));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
</script>

<svelte:head><title>{found?.name ?? "Lot"} · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-12 sm:px-6">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href="/log">Logbook</a>
    </p>
    {#if asked.problem}
      <h1 class="mt-2 text-2xl">This lot is not here</h1>
      <p role="alert" class="mt-1 quiet">{asked.problem.detail}</p>
    {:else if found}
      <h1 class="mt-2 text-2xl">{found.name}</h1>
      <p class="quiet">Where this lot went.</p>
      <div class="mt-4 flex flex-wrap items-end gap-x-9 gap-y-3" data-trace="ready">
        <Fact label="Delivered">{dayName(found.delivered)}</Fact>
        <Fact label="Use by">{found.use_by ? dayName(found.use_by) : "not known"}</Fact>
        <Fact label="In finished cooks"><Qty kind="mass_g" value={found.used_g} /></Fact>
        <Fact label="Left"><Qty kind="mass_g" value={found.left_g} /></Fact>
        <button class="act text-sm print:hidden" onclick={() => window.print()}>Print</button>
      </div>
      {#if found.cooks.length === 0}
        <p class="mt-6 max-w-[36rem]">No cook held it.</p>
        <p class="mt-1 max-w-[36rem] quiet">
          A formula takes it up when the lot is chosen for its meat; then each cook of it stands here.
        </p>
      {:else}
        <ul class="mt-6 border-t-2 border-base-content" aria-label="Cooks that held it">
          {#each found.cooks as { cook, mass_g } (cook.cook_id)}
            <li class="border-b border-base-300">
              <a
                class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-6 gap-y-0.5 py-2.5 hover:bg-paper sm:grid-cols-[9rem_minmax(0,1fr)_9rem_6rem]"
                href={cook.finished_at ? `/log/${cook.cook_id}` : `/stove/${cook.cook_id}`}
              >
                <span class="quiet narrow">{moment(cook.started_at)}</span>
                <span class="truncate font-semibold max-sm:order-first max-sm:col-span-2"
                  >{cook.formula_name}</span
                >
                <span class="text-sm quiet sm:text-right"
                  >{cook.finished_at ? `${cook.pieces} pieces` : "still at the stove"}</span
                >
                <span class="text-right numeral max-sm:col-span-2"><Qty kind="mass_g" value={mass_g} /></span>
              </a>
            </li>
          {/each}
        </ul>
        <p class="mt-4 max-w-[40rem] text-sm quiet">
          Grams in the batch, after trimming; what was trimmed off was taken from the lot as well. Names and
          days are as they were when each cook began.
        </p>
      {/if}
    {:else}<p class="mt-4 quiet" aria-busy="true">Looking where it went …</p>{/if}
  </main>
</Shell>
