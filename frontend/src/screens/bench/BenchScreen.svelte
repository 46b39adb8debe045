<!-- The bench: ticket above, rail left, one instrument in the middle, counsel beside it. -->
<script lang="ts">
  import Keyboard from "@lucide/svelte/icons/keyboard";
  import Redo from "@lucide/svelte/icons/redo-2";
  import Undo from "@lucide/svelte/icons/undo-2";
  import type { Step, StoredKitchen, Catalogue } from "../../lib/api/client";
  import { api } from "../../lib/api/client";
  import { Bench } from "../../lib/bench.svelte";
  import { bindKeys } from "../../lib/keys";
  import Shell from "../../lib/ui/Shell.svelte";
  import WorkingSheet from "../../lib/ui/WorkingSheet.svelte";
  import { navigate, route } from "../../router";
  import CookStep from "../cook/CookStep.svelte";
  import DishStep from "../dish/DishStep.svelte";
  import HeatStep from "../heat/HeatStep.svelte";
  import MeatStep from "../meat/MeatStep.svelte";
  import MixStep from "../mix/MixStep.svelte";
  import NotesStep from "../notes/NotesStep.svelte";
  import ShapeStep from "../shape/ShapeStep.svelte";
  import ConflictSheet from "./ConflictSheet.svelte";
  import CounselList from "./CounselList.svelte";
  import KeysSheet from "./KeysSheet.svelte";
  import StepRail from "./StepRail.svelte";
  import Ticket from "./Ticket.svelte";

  const steps = {
    dish: DishStep,
    meat: MeatStep,
    mix: MixStep,
    shape: ShapeStep,
    heat: HeatStep,
    cook: CookStep,
    notes: NotesStep,
  };
  const numbers: Record<string, Step> = {
    1: "dish",
    2: "meat",
    3: "mix",
    4: "shape",
    5: "heat",
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
    Promise.all([api.catalogue(), api.kitchen()]).then(
      ([c, k]) => {
        catalogue = c;
        kitchen = k;
      },
      (error: Error) => (lists = error.message),
    );
    return () => now.close();
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
  const evaluation = $derived(bench?.evaluation ?? null);
  const Instrument = $derived(steps[step] ?? DishStep);
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
    <main id="main" class="mx-auto max-w-xl p-8">
      <h1 class="text-2xl">This formula was put away</h1>
      <a class="mt-4 act" href="/">To the shelf</a>
    </main>
  {:else if bench && evaluation && bench.formula && catalogue && kitchen}
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
        <Instrument
          {bench}
          formula={bench.formula}
          {evaluation}
          {catalogue}
          kitchen={kitchen.kitchen}
          onworking={(working: string) => (shown = { working, step })}
        />
      </main>
      <CounselList {bench} counsel={evaluation.counsel} current={step} />
    </div>
    <WorkingSheet
      working={shown ? (evaluation.workings[shown.working] ?? null) : null}
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
        <p class="quiet">Laying out the bench …</p>
      {/if}
    </main>
  {/if}
  <KeysSheet open={keys} onclose={() => (keys = false)} />
</Shell>
