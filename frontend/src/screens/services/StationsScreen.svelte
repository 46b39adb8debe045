<!-- One sheet a station or a cook: what is done there and when, to hang up or to hand out. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type PlannedService, type StoredService } from "../../lib/api/client";
  import { refusalOf } from "../../lib/refusal";
  import { Search } from "../../lib/search.svelte";
  import Looking from "../../lib/ui/Looking.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import { sheetsOf, type Of } from "./stations";

  const id = $derived(Number(route.params.id));
  let stored = $state.raw<StoredService | null>(null);
  let problem = $state<string | null>(null);
  let of = $state<Of>("place");
  const plan = new Search<StoredService["service"], PlannedService>((now, signal, look) =>
    api.planService(now, units.system, look, signal),
  );
  $effect(() => {
    const service = id;
    void refusalOf(async () => (stored = await api.service(service))).then((said) => (problem = said));
  });
  $effect(() => {
    if (stored && units.system) plan.ask(stored.service);
  });
  onDestroy(() => plan.clear());
  const timetable = $derived(plan.value?.timetable ?? null);
  const sheets = $derived(timetable ? sheetsOf(timetable, of) : []);
</script>

<svelte:head><title>Station sheets · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-12 sm:px-6">
    <div class="print:hidden">
      <p><a class="text-primary underline underline-offset-3" href={`/services/${id}`}>The service</a></p>
      <h1 class="mt-2 text-2xl">{stored ? `${stored.service.name}, station sheets` : "Station sheets"}</h1>
      {#if problem ?? plan.problem}<p role="alert" class="mt-4 text-error">
          {problem ?? plan.problem?.detail}
        </p>{/if}
      {#if sheets.length > 0}
        <div class="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3" data-stations="ready">
          <Segments
            label="A sheet for each"
            value={of}
            options={[
              { key: "place", title: "station" },
              { key: "cook", title: "cook" },
            ]}
            onpick={(key) => (of = key)}
          />
          <button class="act-main" onclick={() => window.print()}
            >Print {sheets.length} {sheets.length === 1 ? "sheet" : "sheets"}</button
          >
        </div>
      {:else if timetable}
        <p class="mt-4"><Say text={timetable.says} /></p>
      {:else if !problem && !plan.problem}
        {#if plan.looking}<Looking search={plan} what="a timetable" />{:else}<p
            class="mt-5 quiet"
            aria-busy="true"
          >
            Planning …
          </p>{/if}
      {/if}
    </div>
    {#each sheets as sheet (sheet.key)}
      <section
        class="poster mt-8 [break-after:page] last:[break-after:auto] print:mt-0"
        aria-label={sheet.title}
      >
        <h2 class="flex flex-wrap items-baseline justify-between gap-x-4 border-b-2 border-base-content pb-1">
          <span class="text-xl font-semibold">{sheet.title}</span>
          <span class="text-[0.9375rem] font-normal quiet"
            >{stored?.service.name}, on the plate at {timetable?.ready}</span
          >
        </h2>
        <ol>
          {#each sheet.tasks as task (task.key)}
            <li class="flex items-baseline gap-x-4 border-b border-base-300 py-2">
              <span class="size-4 shrink-0 self-center border-2 border-base-content" aria-hidden="true"
              ></span>
              <span class="w-28 shrink-0 text-lg numeral">{task.starts}–{task.ends}</span>
              <span class="min-w-0 grow"
                ><span class="text-[1.0625rem] font-semibold"><Say text={task.title} /></span>
                <span class="block text-sm quiet">{task.beside}</span></span
              >
            </li>
          {/each}
        </ol>
      </section>
    {/each}
  </main>
</Shell>
