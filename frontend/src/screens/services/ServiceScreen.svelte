<!-- One service: its dishes and guests, the hour, and one timetable for all of them. -->
<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import { api, type Service, type FormulaName, type StoredKitchen } from "../../lib/api/client";
  import { Told } from "../../lib/told.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { navigate, route } from "../../router";
  import QuickField from "../heat/QuickField.svelte";
  import TimetableView from "../time/TimetableView.svelte";
  import CountsSection from "./CountsSection.svelte";
  import { ServiceBench } from "./service.svelte";

  const id = $derived(Number(route.params.id));
  const told = new Told();
  let bench = $state.raw<ServiceBench | null>(null);
  let shelf = $state.raw<FormulaName[]>([]);
  let kitchen = $state.raw<StoredKitchen | null>(null);
  let asking = $state(false);
  $effect(() => {
    const now = new ServiceBench(id);
    bench = now;
    void now.load();
    void told.run(async () => {
      [shelf, kitchen] = await Promise.all([api.formulas(), api.kitchen()]);
    });
    return () => now.close();
  });
  const service = $derived(bench?.service ?? null);
  $effect(() => {
    if (!bench || !service) return;
    if (service.dishes.length === 0) bench.plan.clear();
    else return bench.plan.ask(service);
  });
  const planned = $derived(service && service.dishes.length > 0 ? (bench?.plan.value ?? null) : null);
  const offered = $derived([
    { key: "", title: "Another dish …" },
    ...shelf.map((f) => ({ key: String(f.id), title: f.name })),
  ]);
  const nameOf = (formula_id: number) =>
    shelf.find((f) => f.id === formula_id)?.name ?? `Formula ${formula_id}`;
  function guests(at: number, text: string): void {
    void told.read("number", text, (value) => {
      const count = Math.round(value);
      bench?.change({
        dishes: service?.dishes.map((d, n) => (n === at ? { ...d, guests: count } : d)) ?? [],
      });
    });
  }
</script>

<svelte:head><title>{service?.name ?? "Service"} · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6 2xl:max-w-[84rem]">
    <p><a class="text-primary underline underline-offset-3" href="/services">All services</a></p>
    {#if bench?.missing}
      <h1 class="mt-3 text-2xl">This service is not here</h1>
      <p class="mt-1 quiet">It was deleted, or it belongs to another kitchen.</p>
    {:else if bench && service && kitchen}
      {@const b = bench}
      <div class="mt-2 flex max-w-[61rem] flex-wrap items-end gap-3">
        <label class="block grow text-[0.8125rem] quiet"
          >Service<input
            class="block w-full border-b border-transparent bg-transparent text-2xl font-semibold text-base-content hover:border-base-300 focus:border-primary"
            value={service.name}
            maxlength="80"
            autocomplete="off"
            onchange={(e) => e.currentTarget.value.trim() && b.change({ name: e.currentTarget.value.trim() })}
          /></label
        >
        <label class="block text-[0.8125rem] quiet"
          >Day<input
            type="date"
            class="mt-0.5 block h-[2.625rem] rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 numeral text-base-content"
            value={service.day}
            onchange={(e) => b.change({ day: e.currentTarget.value })}
          /></label
        >
        {#if service.day}
          <PickField
            label="Comes again"
            value={service.repeat}
            options={[
              { key: "", title: "Never" },
              { key: "weekly", title: "Every week" },
              { key: "fortnightly", title: "Every second week" },
              { key: "monthly", title: "Every month, this weekday" },
            ]}
            onpick={(key) => b.change({ repeat: key as Service["repeat"] })}
          />
        {/if}
        <span class="pb-2 text-sm quiet" role="status"
          >{b.save === "saved" ? "Saved" : b.save === "saving" ? "Saving…" : "Not saved yet"}</span
        >
      </div>
      {#if b.theirs}
        <div role="alert" class="mt-3 border-l-4 border-warning pl-3">
          <p>This service was saved in another window since you opened it.</p>
          <div class="mt-2 flex gap-2">
            <button class="act" onclick={() => b.settle("theirs")}>Take theirs</button>
            <button class="act" onclick={() => b.settle("mine")}>Keep mine</button>
          </div>
        </div>
      {:else if b.problem}<p role="alert" class="mt-3 text-error">{b.problem}</p>{/if}
      {#if told.problem}<p role="alert" class="mt-3 text-error">{told.problem}</p>{/if}

      <section class="mt-5 max-w-[61rem]" aria-label="Dishes">
        <ul aria-label="Dishes">
          {#each service.dishes as dish, at (at)}
            {@const known = planned?.dishes[at]}
            <li class="flex flex-wrap items-center gap-3 border-t border-base-300 py-1.5">
              <a class="min-w-0 flex-1 basis-28 font-semibold" href={`/formula/${dish.formula_id}/dish`}
                >{known?.name || nameOf(dish.formula_id)}</a
              >
              {#if known?.problem}<span class="basis-full text-sm text-error sm:basis-auto"
                  >{known.problem}</span
                >{/if}
              <QuickField
                label={`Guests of ${nameOf(dish.formula_id)}`}
                value={String(dish.guests || (known?.guests ?? ""))}
                width="5rem"
                bare
                oncommit={(t) => guests(at, t)}
              /><span class="quiet">guests</span>
              <button
                class="act size-10 p-0"
                onclick={() => b.change({ dishes: service.dishes.filter((_, n) => n !== at) })}
                ><Trash size={18} aria-hidden="true" /><span class="sr-only"
                  >Leave out {nameOf(dish.formula_id)}</span
                ></button
              >
            </li>
          {/each}
        </ul>
        {#if service.dishes.length < 8}
          <div class="mt-2 flex flex-wrap items-end gap-3">
            <PickField
              label="Also on the plate"
              value=""
              options={offered}
              onpick={(key) =>
                key && b.change({ dishes: [...service.dishes, { formula_id: Number(key), guests: 0 }] })}
            />
            {#if service.dishes.length > 0}
              <a class="act text-sm" href={`/services/${id}/set-out`}>Set it out</a>
              <a class="act text-sm" href={`/services/${id}/stations`}>Station sheets</a>
              <a class="act text-sm" href={`/services/${id}/cook`}>Cook it</a>
              <a class="act text-sm" href="/shopping">What to buy</a>
            {/if}
          </div>
        {/if}
      </section>

      <!-- Above the timetable: what grows when a plan arrives must not move a button from under a finger. -->
      <div class="mt-4 flex flex-wrap gap-2">
        <a class="act text-sm" href={api.servicePath(id)} download>Save as a file</a>
        <button
          class="act text-sm"
          onclick={() =>
            told.run(async () => {
              // The same dishes and hands on a day of its own; how many came belongs to the first.
              const name = `${service.name.slice(0, 72)}, again`;
              const copy = await api.createService({
                ...service,
                name,
                day: "",
                repeat: "",
                until: "",
                counts: [],
              });
              await navigate(`/services/${copy.id}` as "/");
            })}>Copy it</button
        >
        {#if asking}
          <button
            class="act border-error text-sm text-error"
            onclick={() =>
              told.run(async () => {
                await b.remove();
                await navigate("/services" as "/");
              })}>Delete {service.name}</button
          >
          <button class="act text-sm" onclick={() => (asking = false)}>Keep it</button>
        {:else}<button class="act text-sm" onclick={() => (asking = true)}>Delete this service</button>{/if}
      </div>
      <div class="mt-7">
        <TimetableView
          timing={service.timing}
          search={b.plan}
          table={planned?.timetable ?? null}
          problem={b.plan.problem}
          refusal={b.refusal}
          kitchen={kitchen.kitchen}
          idle={service.dishes.length === 0}
          onedit={(edit) => void b.edit(edit)}
          oncalendar={(cook, text) => void b.calendar(cook, text)}
        />
      </div>
      <CountsSection
        counts={service.counts}
        onchange={(counts) => b.change({ counts })}
        onplan={(guests) => b.change({ dishes: service.dishes.map((dish) => ({ ...dish, guests })) })}
      />
    {:else if bench?.problem || told.problem}
      <p role="alert" class="mt-4 text-error">
        {bench?.problem ?? told.problem}
        <button class="ml-2 act" onclick={() => location.reload()}>Try again</button>
      </p>
    {:else}<p class="mt-4 quiet" aria-busy="true">Loading…</p>{/if}
  </main>
</Shell>
