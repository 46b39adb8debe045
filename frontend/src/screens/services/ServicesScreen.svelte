<!-- What is served together: the services there are, and a new one. -->
<script lang="ts">
  import { api, type StoredService } from "../../lib/api/client";
  import { Told } from "../../lib/told.svelte";
  import ImportFile from "../../lib/ui/ImportFile.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { navigate } from "../../router";
  import { dayName } from "../../lib/days";
  import { clock } from "../time/lanes";

  const AGAIN = { weekly: "weekly", fortnightly: "every second week", monthly: "monthly" } as const;
  const told = new Told();
  let services = $state.raw<StoredService[] | null>(null);
  let name = $state("");
  const load = () => told.run(async () => void (services = await api.services()));
  $effect(() => void load());

  function begin(event: SubmitEvent): void {
    event.preventDefault();
    void told.run(async () => {
      const made = await api.createService({
        name: name.trim(),
        day: "",
        dishes: [],
        remark: "",
        repeat: "",
        until: "",
        counts: [],
        timing: { ready_min: 1110, cooks: 1, opens_min: -1, own: [], pins: [], away: [] },
      });
      await navigate(`/services/${made.id}` as "/");
    });
  }
</script>

<svelte:head><title>Services · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-8 pb-12 sm:px-6">
    <h1 class="text-2xl">Services</h1>
    <p class="mt-1 max-w-[40rem] quiet">
      Several dishes on the plate at one hour, from one kitchen: one timetable for all of them.
    </p>
    <p class="mt-3 flex flex-wrap gap-2">
      <a class="act text-sm" href="/shopping">Shopping for the week</a>
      <a class="act text-sm" href="/prep">Prep plan</a>
      <a class="act text-sm" href={api.calendar()} download>Save as a calendar</a>
      <ImportFile />
    </p>
    <form class="mt-5 flex flex-wrap items-end gap-3" onsubmit={begin} aria-label="A new service">
      <label class="block text-[0.8125rem] quiet"
        >Its name<input
          class="mt-0.5 block h-[2.625rem] w-64 max-w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base text-base-content"
          bind:value={name}
          maxlength="80"
          placeholder="Burger night"
          autocomplete="off"
        /></label
      >
      <button class="act act-main h-[2.625rem]" disabled={!name.trim()}>Begin it</button>
    </form>
    {#if told.problem}
      <p role="alert" class="mt-3 text-error">
        {told.problem} <button class="ml-2 act" onclick={load}>Try again</button>
      </p>
    {:else if services === null}
      <p class="mt-4 quiet" aria-busy="true">Loading…</p>
    {:else if services.length === 0}
      <p class="mt-5 quiet">None yet. Name one above, and choose its dishes.</p>
    {:else}
      <ul class="mt-6 border-t-2 border-base-content" aria-label="Services">
        {#each services as s (s.id)}
          <li class="border-b border-base-300">
            <a
              class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-6 py-2.5 hover:bg-paper sm:grid-cols-[minmax(0,1fr)_7rem_5rem_12rem]"
              href={`/services/${s.id}`}
            >
              <span class="truncate text-[1.0625rem] font-semibold">{s.service.name}</span>
              <span class="text-right numeral">{s.service.day ? dayName(s.service.day) : ""}</span>
              <span class="text-right numeral max-sm:hidden">{clock(0, s.service.timing.ready_min)}</span>
              <span class="text-right quiet max-sm:hidden"
                >{s.service.dishes.length === 1 ? "1 dish" : `${s.service.dishes.length} dishes`}{s.service
                  .repeat
                  ? `, ${AGAIN[s.service.repeat]}`
                  : ""}</span
              >
            </a>
          </li>
        {/each}
      </ul>
    {/if}
  </main>
</Shell>
