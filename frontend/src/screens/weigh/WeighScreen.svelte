<!-- Check-weighing at arm's length: one number, one thing to do next; dark, for wet hands, a keyboard or a knuckle. -->
<script lang="ts">
  import { bindKeys } from "../../lib/keys";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import BatchSection from "./BatchSection.svelte";
  import { digits, reading as grams } from "../../lib/grams";
  import SimulatedHands from "./SimulatedHands.svelte";
  import TargetScale from "./TargetScale.svelte";
  import { WeighingRun } from "./weighing.svelte";

  const id = $derived(Number(route.params.id));
  let weighing = $state.raw<WeighingRun | null>(null);
  $effect(() => {
    const now = new WeighingRun(id);
    weighing = now;
    void now.open();
    return () => now.close();
  });

  const run = $derived(weighing?.run ?? null);
  const running = $derived(run?.running);
  const display = $derived(weighing?.display ?? null);
  const reading = $derived(display?.reading ?? null);
  const verdict = $derived(display?.verdict ?? null);
  const target = $derived(running?.next_target_g ?? 0);
  const unit = $derived(units.system === "us" ? "oz" : "g");
  const shown = $derived.by(() => {
    if (!reading) return "–";
    if (reading.shown_g == null) return "– – –";
    return digits(reading.shown_g);
  });
  /** A display from before the newest thing done is of another piece. */
  const fresh = $derived(!!run && !!display && display.newest >= run.newest);
  const kept = $derived(weighing?.waiting.some((w) => w.action === "keep") ?? false);
  /** What to do next, in one word or two, and what the big button does. */
  const next = $derived.by(() => {
    if (!run || !running || !reading) return { say: "Connecting…", act: null, label: "Wait" };
    if (run.finished_at) return { say: "Finished.", act: "reopen" as const, label: "Open again" };
    if (kept) return { say: "Waits to be sent", act: null, label: "Kept here, not yet sent" };
    if (reading.state === "overload")
      return { say: "Too much on the scale", act: "lift" as const, label: "Take it off" };
    if (reading.state === "underload")
      return { say: "Less than nothing: tare it", act: "tare" as const, label: "Tare" };
    if (running.complete) return { say: "All are weighed", act: "finish" as const, label: "Finish" };
    if (run.on_record)
      return {
        say: `On the tray: piece ${running.counted}`,
        act: "piece" as const,
        label: `Lay on piece ${running.next_number}`,
      };
    if (!fresh) return { say: "Settling …", act: null, label: "Settling …" };
    if (!verdict || verdict.kind === "empty")
      return {
        say: `Lay on piece ${running.next_number}`,
        act: "piece" as const,
        label: `Lay on piece ${running.next_number}`,
      };
    if (reading.state === "moving") return { say: "Settling …", act: null, label: "Settling …" };
    if (verdict.kind === "good") return { say: "Good", act: "keep" as const, label: `Keep ${shown} ${unit}` };
    const much = grams(Math.abs(verdict.change_g));
    if (verdict.kind === "odd")
      return { say: `${shown} ${unit} is no piece`, act: "lift" as const, label: "Take it off" };
    return verdict.kind === "light"
      ? { say: `Add ${much}`, act: "correct" as const, label: `Add ${much}` }
      : { say: `Pinch off ${much}`, act: "correct" as const, label: `Pinch off ${much}` };
  });
  const tone = $derived(
    !verdict || reading?.state !== "steady" || run?.on_record
      ? "text-base-content"
      : ({ good: "text-success", light: "text-warning", heavy: "text-warning", odd: "text-error" }[
          verdict.kind as "good"
        ] ?? "text-base-content"),
  );
  const canKeep = $derived(
    !!run &&
      !run.finished_at &&
      !run.on_record &&
      !kept &&
      fresh &&
      reading?.state === "steady" &&
      !!verdict &&
      verdict.kind !== "empty",
  );

  function main(): void {
    if (next.act) weighing?.act(next.act);
  }
  /** Blank and Enter do the next thing, unless a button has them already. */
  function press(event: KeyboardEvent): void {
    if ((event.target as HTMLElement).closest("button, a")) return;
    event.preventDefault();
    main();
  }
  function keep(): void {
    if (canKeep) weighing?.act("keep");
  }
  $effect(() =>
    bindKeys({
      Space: press,
      Enter: press,
      k: keep,
      p: () => weighing?.act("piece"),
      c: () => weighing?.act("correct"),
      o: () => weighing?.act("lift"),
      t: () => weighing?.act("tare"),
      l: () => weighing?.act("lean"),
    }),
  );
</script>

<svelte:head><title>{run ? `Weigh ${run.formula_name}` : "Weigh"} · Vianda</title></svelte:head>
<div data-theme="stove" class="min-h-dvh bg-base-100 text-base-content">
  {#if weighing?.missing}
    <main id="main" class="p-8">
      <h1 class="text-2xl">There is no such weighing</h1>
      <a class="mt-4 act" href="/">To the shelf</a>
    </main>
  {:else if run && running}
    <header
      class="flex min-h-12 flex-wrap items-center justify-between gap-x-5 gap-y-1 border-b border-base-300 px-4 py-1.5"
    >
      <h1 class="text-lg">
        <a class="underline decoration-base-300 underline-offset-4" href={`/formula/${run.formula_id}/shape`}
          >{run.formula_name}</a
        >
        <span class="ml-2 font-normal opacity-80"
          >check-weighing{run.begun_by ? `, begun by ${run.begun_by}` : ""}</span
        >
      </h1>
      <p class="flex items-baseline gap-5">
        <span class="text-xl numeral" data-counted>{running.counted} of {run.plan.pieces}</span>
        <button class="act min-h-9 text-sm" onclick={() => units.flip()}>{unit === "g" ? "oz" : "g"}</button>
      </p>
    </header>
    {#if weighing?.away}
      <p role="alert" class="bg-warning px-4 py-2 font-semibold text-warning-content">
        The scale does not answer. What is on record is safe{#if weighing.waiting.length > 0}; {weighing
            .waiting.length} waiting to be sent{/if}. Trying again …
      </p>
    {/if}
    <main
      id="main"
      class="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 px-4 pt-3 pb-6 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]"
    >
      <section aria-label="The scale" class="self-start lg:sticky lg:top-3">
        <p class="text-base opacity-85">
          Piece <span class="numeral">{Math.min(running.next_number, run.plan.pieces + 1)}</span>, wanted
          <span class="numeral">{grams(target)}</span> ± {grams(run.plan.tolerance_g)}
        </p>
        <p class={["flex items-baseline gap-3 leading-none", tone]}>
          <span
            class="text-[min(11.5rem,34vw)] leading-[0.95] numeral"
            data-reading={reading?.shown_g ?? ""}
            data-state={fresh ? (reading?.state ?? "") : "moving"}
            data-good={verdict?.kind === "good"}>{shown}</span
          >
          <span class="text-4xl">{unit}</span>
        </p>
        <TargetScale {target} tolerance={run.plan.tolerance_g} shown={reading?.shown_g ?? null} />
        <p class={["mt-1 min-h-12 text-[2.25rem] leading-tight font-[650]", tone]} role="status">
          {next.say}
        </p>
        <div class="mt-2 flex flex-wrap items-stretch gap-3">
          <button
            class="act-main min-h-20 flex-1 basis-72 text-2xl"
            data-next
            onclick={main}
            disabled={next.act == null}>{next.label}</button
          >
          {#if canKeep && next.act !== "keep"}
            <button class="act min-h-20 px-5 text-lg" onclick={keep}>Keep it as it is</button>
          {/if}
        </div>
        {#if weighing?.problem}<p role="alert" class="mt-2 text-error">{weighing.problem}</p>{/if}
        <SimulatedHands
          step_g={run.plan.step_g}
          finished={!!run.finished_at}
          onact={(action) => weighing?.act(action)}
        />
      </section>
      <BatchSection
        {run}
        onact={(action, about) => weighing?.act(action, about)}
        onnoted={(now) => {
          if (weighing) weighing.run = now;
        }}
      />
    </main>
  {:else}
    <main id="main" class="p-8" aria-busy="true">
      {#if weighing?.away}<h1 class="text-2xl">The scale does not answer yet</h1>
        <p class="mt-2" role="alert">Trying again every second.</p>
      {:else}<p>Loading…</p>{/if}
    </main>
  {/if}
</div>
