<!-- The bench: ticket above, rail left, one instrument in the middle, counsel beside it. -->
<script lang="ts">
  import Keyboard from "@lucide/svelte/icons/keyboard";
  import Redo from "@lucide/svelte/icons/redo-2";
  import Undo from "@lucide/svelte/icons/undo-2";
  import type { Step, StoredKitchen, Catalogue } from "../../lib/api/client";
  import { api } from "../../lib/api/client";
  import { Bench } from "../../lib/bench.svelte";
  import { bindKeys } from "../../lib/keys";
  import { session } from "../../lib/session.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import WorkingSheet from "../../lib/ui/WorkingSheet.svelte";
  import { navigate, route } from "../../router";
  import ConflictSheet from "./ConflictSheet.svelte";
  import CounselList from "./CounselList.svelte";
  import NotOnShelf from "./NotOnShelf.svelte";
  import KeysSheet from "./KeysSheet.svelte";
  import StepRail from "./StepRail.svelte";
  import Ticket from "./Ticket.svelte";

  // Each step is fetched when it is first opened, or a moment after the bench stands: a cook can still go from step
  // to step when the line drops.
  const steps = {
    dish: () => import("../dish/DishStep.svelte"),
    meat: () => import("../meat/MeatStep.svelte"),
    mix: () => import("../mix/MixStep.svelte"),
    shape: () => import("../shape/ShapeStep.svelte"),
    heat: () => import("../heat/HeatStep.svelte"),
    sauce: () => import("../sauce/SauceStep.svelte"),
    time: () => import("../time/TimeStep.svelte"),
    cook: () => import("../cook/CookStep.svelte"),
    notes: () => import("../notes/NotesStep.svelte"),
  };
  const numbers: Record<string, Step> = {
    1: "dish",
    2: "meat",
    3: "mix",
    4: "shape",
    5: "heat",
    6: "sauce",
    7: "time",
    8: "cook",
    9: "notes",
  };

  const id = $derived(Number(route.params.id));
  const step = $derived((route.params.step as Step | undefined) ?? "dish");
  let bench = $state.raw<Bench | null>(null);
  let catalogue = $state.raw<Catalogue | null>(null);
  let kitchen = $state.raw<StoredKitchen | null>(null);
  let shown = $state<{ working: string; step: string } | null>(null);
  let keys = $state(false);
  let lists = $state<string | null>(null);

  $effect(() => {
    const now = new Bench(id);
    bench = now;
    void now.load();
    let again: ReturnType<typeof setTimeout>;
    const fetchLists = () =>
      Promise.all([api.catalogue(), api.kitchen()]).then(
        ([c, k]) => {
          catalogue = c;
          now.ranges = c.ranges;
          kitchen = k;
          lists = null;
        },
        (error: Error) => {
          lists = error.message;
          again = setTimeout(fetchLists, 2000);
        },
      );
    void fetchLists();
    return () => {
      clearTimeout(again);
      now.close();
    };
  });
  $effect(() => {
    if (!stands) return;
    const idle = setTimeout(
      () => Object.values(steps).forEach((fetched) => void fetched().catch(() => null)),
      4000,
    );
    return () => clearTimeout(idle);
  });
  $effect(() =>
    bindKeys({
      ...Object.fromEntries(Object.entries(numbers).map(([key, to]) => [key, () => go(to)])),
      "Shift+?": () => (keys = true),
      "$mod+z": travel("undo"),
      "$mod+Shift+z": travel("redo"),
      "$mod+y": travel("redo"),
    }),
  );

  /** The browser would also take back what was typed into the last field. */
  const travel = (way: "undo" | "redo") => (event: KeyboardEvent) => {
    event.preventDefault();
    void bench?.[way]();
  };
  function go(to: string): void {
    shown = null;
    void navigate(`/formula/${id}/${to}` as "/");
  }
  $effect(() => (shown && bench?.formula ? bench.sheets.ask(bench.formula) : undefined));
  const evaluation = $derived(bench?.evaluation ?? null);
  const stands = $derived(evaluation !== null);
  const instrument = $derived((steps[step as keyof typeof steps] ?? steps.dish)());
  const stepTitle = $derived(evaluation?.rail.find((r) => r.step === shown?.step)?.title ?? "");
</script>

<svelte:head><title>{bench?.formula?.name ?? "Bench"} · Vianda</title></svelte:head>
<Shell here="Bench" fixed>
  {#snippet tools()}
    <button
      class="grid size-8 cursor-pointer place-items-center rounded hover:bg-white/10 disabled:opacity-35 sm:size-9"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={!bench?.canUndo}
      onclick={() => bench?.undo()}><Undo size={18} /></button
    >
    <button
      class="grid size-8 cursor-pointer place-items-center rounded hover:bg-white/10 disabled:opacity-35 sm:size-9"
      aria-label="Redo"
      title="Redo (Ctrl Shift Z)"
      disabled={!bench?.canRedo}
      onclick={() => bench?.redo()}><Redo size={18} /></button
    >
    <button
      class="grid size-9 cursor-pointer place-items-center rounded hover:bg-white/10 max-sm:hidden"
      aria-label="Keys"
      title="Keys (?)"
      onclick={() => (keys = true)}><Keyboard size={18} /></button
    >
  {/snippet}
  {#if bench?.missing}
    <NotOnShelf {bench} {id} />
  {:else if bench && evaluation && bench.formula && catalogue && kitchen}
    {#if !session.may("chef")}
      <p role="note" class="border-b border-base-300 bg-base-200 px-4 py-1.5 text-[0.875rem]">
        You are signed in as {session.person?.role}: figures answer to what you change, but only a chef keeps
        it.
      </p>
    {/if}
    <Ticket
      {bench}
      {evaluation}
      name={bench.formula.name}
      onworking={(working, of) => (shown = { working, step: of })}
    />
    <div
      class="-mt-[5px] grid flex-1 grid-cols-[minmax(0,1fr)] max-lg:pb-16 lg:min-h-0 lg:grid-cols-[12.25rem_minmax(0,1fr)_17rem]"
    >
      <StepRail {evaluation} {id} current={step} />
      <main id="main" class="relative min-w-0 px-4 pt-5 pb-6 lg:overflow-y-auto lg:px-6">
        {#if bench.refusal && ["save", "undo", "rename"].includes(bench.refusal.target)}
          <p role="alert" class="mb-3 border-l-4 border-error pl-3 text-error">{bench.refusal.detail}</p>
        {/if}
        {#await instrument then { default: Instrument }}
          <Instrument
            {bench}
            formula={bench.formula}
            {evaluation}
            {catalogue}
            kitchen={kitchen.kitchen}
            onworking={(working: string) => (shown = { working, step })}
          />
        {:catch}
          <p role="alert">This step could not be loaded. Reload the page.</p>
        {/await}
      </main>
      <CounselList {bench} counsel={evaluation.counsel} current={step} />
    </div>
    <WorkingSheet
      working={shown && !bench.sheets.busy ? (bench.sheets.value?.workings[shown.working] ?? null) : null}
      onclose={() => (shown = null)}
      ondecide={shown && shown.step !== step ? () => go(shown?.step ?? step) : null}
      decideTitle={`Go to the step that decides it: ${stepTitle}`}
    />
    <ConflictSheet {bench} />
  {:else}
    <main id="main" class="p-8" aria-busy="true">
      {#if bench?.problem ?? lists}
        <h1 class="text-2xl">The bench cannot open yet</h1>
        <p class="mt-2" role="alert">{bench?.problem ?? lists}</p>
        <p class="mt-2 quiet">Trying again every two seconds.</p>
      {:else}
        <p class="quiet">Loading…</p>
      {/if}
    </main>
  {/if}
  <KeysSheet open={keys} onclose={() => (keys = false)} />
</Shell>
