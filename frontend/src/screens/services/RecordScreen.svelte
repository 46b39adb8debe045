<!-- The food-safety record of an evening: each check with its line, what was read, by whom, and what was done. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type CheckRow, type CheckSheet } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import RecordRows from "../checks/RecordRows.svelte";
  import { DEFERS, linesOf } from "../checks/record";

  const id = $derived(Number(route.params.id));
  const day = $derived(String(route.params.day));
  const asked = new Resource<[number, string], CheckSheet>(([service_id, on], signal) =>
    api.checkSheet(service_id, { day: on, stood: [], now_min: null, unit_system: units.system }, signal),
  );
  $effect(() => asked.ask([id, day]));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const rows = $derived(found?.rows ?? []);
  const count = (state: CheckRow["state"]) => rows.filter((row) => row.state === state).length;
</script>

<svelte:head><title>Checks, {found?.name ?? "service"} · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href={`/services/${id}`}>The service</a>
    </p>
    {#if asked.problem}
      <h1 class="mt-2 text-2xl">Checks</h1>
      <p role="alert" class="mt-2 text-error">{asked.problem.detail}</p>
    {:else if found}
      <h1 class="mt-2 text-2xl">Checks, {found.name}</h1>
      <p class="quiet">
        {dayName(found.day)}. {found.kitchen}. {linesOf(found)}
      </p>
      <div class="mt-4 flex flex-wrap items-end gap-x-9 gap-y-3" data-record="ready">
        <Fact label="Kept">{count("kept")}</Fact>
        <Fact label="Missed">{count("missed")}</Fact>
        <Fact label="Missed, and seen to">{count("settled")}</Fact>
        <Fact label="Not measured">{count("not-measured") + count("unfinished")}</Fact>
        <div class="flex gap-2 print:hidden">
          <button class="act text-sm" onclick={() => window.print()}>Print</button>
          <a class="act text-sm" href={api.checkRecord(id, found.day)} download>Save as CSV</a>
        </div>
      </div>
      {#if rows.length === 0}
        <p class="mt-6 max-w-[36rem]">Nothing was cooked or measured on this day.</p>
        <p class="mt-1 max-w-[36rem] quiet">
          Cook the service at the stove: it asks for each temperature when it is due.
        </p>
        <p class="mt-3"><a class="act" href={`/services/${id}/cook`}>Cook it</a></p>
      {:else}
        <div class="mt-6"><RecordRows {rows} /></div>
      {/if}
      <p class="mt-6 max-w-[44rem] text-sm quiet">
        {DEFERS}
      </p>
    {:else}<p class="mt-4 quiet" aria-busy="true">Looking up what was measured …</p>{/if}
  </main>
</Shell>
