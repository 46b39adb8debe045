<!-- At the stove: one instruction, one number, what comes next, big buttons. Dark, at arm's length, for a knuckle. -->
<script lang="ts">
  import { keepAwake } from "../../lib/awake";
  import { wakeSound } from "../../lib/chime";
  import { cues } from "../../lib/cues.svelte";
  import { amount, phrase, time } from "../../lib/format";
  import { bindKeys } from "../../lib/keys";
  import CuesMenu from "../../lib/ui/CuesMenu.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import SurfacePicture from "../../lib/ui/SurfacePicture.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import BuildList from "./BuildList.svelte";
  import Forecast from "./Forecast.svelte";
  import ReadingSheet from "./ReadingSheet.svelte";
  import { Stove } from "./stove.svelte";

  const id = $derived(Number(route.params.id));
  let stove = $state.raw<Stove | null>(null);
  /** Which thermometer is read, while its sheet is open. */
  let reading = $state<"core" | "surface" | null>(null);

  $effect(() => {
    const now = new Stove(id);
    stove = now;
    void now.load();
    const rest = keepAwake();
    cues.restore();
    return () => {
      now.close();
      rest();
    };
  });
  $effect(() =>
    bindKeys({
      Space: () => press(),
      Enter: () => press(),
      "+": () => stove?.more(),
      Backspace: () => stove?.back(),
    }),
  );

  const step = $derived(stove?.current?.step ?? null);
  const timed = $derived((stove?.timerS ?? 0) > 0);
  const due = $derived(timed && (stove?.leftS ?? 0) <= 0);
  const checking = $derived(
    timed && step != null && !due && (stove?.spentS ?? 0) >= step.check_from_s && step.check_from_s > 0,
  );
  /** What is said aloud, where that was asked for. */
  const cue = $derived(step ? phrase(step.cue, units) : "");
  $effect(() => {
    if (due) cues.call("over", cue);
  });
  $effect(() => {
    if (checking) cues.call("look", cue);
  });
  const hot = $derived(stove?.hotInS != null && stove.hotInS <= 0);
  $effect(() => {
    if (hot) cues.call("look", "Hot enough");
  });

  const heat = $derived(stove?.cook?.plan.heat ?? null);
  /** A rest lies beside the heat, and a loaf in its oven is no picture of a plate. */
  /** The surface is not hot enough yet, and it is told when. */
  const waiting = $derived(stove?.surface != null && stove.hotInS !== null);
  const onSurface = $derived(
    stove?.current != null && !["chill", "rest", "simmer"].includes(step?.kind ?? ""),
  );
  /** Said by the forecast where there is one. */
  const lastRead = $derived(stove?.happenings.findLast((h) => h.kind === "probe"));
  const ahead = $derived(stove ? stove.places.slice(stove.standing.place + 1, stove.standing.place + 6) : []);
  const title = (text: string, count: number) => text.replace("{n}", String(count));

  function press(): void {
    wakeSound();
    if (stove && !stove.over && !reading) stove.done();
  }
</script>

{#snippet surface(look: string)}
  {#if stove?.cook && stove.current}
    <figure class={look}>
      <SurfacePicture
        stove={stove.cook.plan.stove}
        shape={stove.cook.plan.shape}
        name=""
        count={stove.current.count}
      />
      <figcaption class="mt-1 text-lg text-[#c9d1d0]" data-on-surface>
        {stove.current.count} of {stove.cook.plan.portions.pieces}
        {#if stove.laidS === null}to be laid on like this{:else}on for {time(
            stove.now - stove.laidS,
          )}{stove.timerS > 0 ? `, next due in ${time(Math.max(0, Math.ceil(stove.leftS)))}` : ""}{/if}
      </figcaption>
    </figure>
  {/if}
{/snippet}

<svelte:head
  ><title>{stove?.cook ? `${stove.cook.formula_name} at the stove` : "Stove"} · Vianda</title></svelte:head
>
<div data-theme="stove" class="flex min-h-dvh flex-col bg-base-100 p-4 text-base-content sm:p-7">
  <header class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 text-lg text-[#a9b5b6]">
    <p>
      {#if stove?.cook}
        {stove.cook.formula_name}
        {#if stove.current}
          {#if stove.cook.plan.stove.load_mass_g}
            · load {stove.current.wave} of {stove.cook.plan.stove.waves}
          {:else}
            · wave {stove.current.wave} of {stove.cook.plan.stove.waves} · {stove.current.count}
            {stove.current.count === 1 ? "piece" : "pieces"}
          {/if}
        {/if}
      {/if}
    </p>
    <span class="flex flex-wrap items-baseline gap-x-6">
      <CuesMenu />
      {#if stove?.cook}<a class="underline underline-offset-4" href={`/formula/${stove.cook.formula_id}/cook`}
          >Back to the bench</a
        >{/if}
    </span>
  </header>

  {#if stove?.problem && !stove.cook}
    <main id="main" class="mt-8">
      <h1 class="text-3xl">The stove plan is not here</h1>
      <p role="alert" class="mt-3 text-xl">{stove.problem}</p>
      <a class="mt-5 act" href="/log">To the logbook</a>
    </main>
  {:else if !stove?.cook || !heat}
    <main id="main" class="mt-8 text-xl" aria-busy="true">Loading…</main>
  {:else if stove.over}
    <main id="main" class="grid flex-1 grid-cols-[minmax(0,1fr)] content-center gap-6">
      <h1 class="text-4xl sm:text-5xl">All off the heat</h1>
      <BuildList lines={stove.cook.plan.checklist} builds={stove.cook.plan.builds} />
      <p class="text-2xl text-[#a9b5b6]">Weigh them while they rest, then note how they were.</p>
      <div class="flex flex-wrap gap-4">
        <a class="act-main min-h-20 px-10 text-2xl" href={`/log/${stove.cook.id}`}>Weigh, rate and note</a>
        <button
          class="min-h-20 cursor-pointer rounded bg-base-200 px-8 text-xl font-semibold"
          onclick={() => stove?.back()}>One step back</button
        >
      </div>
    </main>
  {:else if step && stove.current}
    <main id="main" class="mt-4 grid flex-1 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div class="flex min-w-0 flex-col">
        <h1 class="text-[clamp(1.8rem,5vw,2.9rem)] leading-[1.08]">
          {title(step.title, stove.current.count)}
        </h1>
        <p class="mt-1.5 text-[clamp(1.1rem,2.6vw,1.5rem)] leading-snug text-[#c9d1d0]">
          <Say text={step.cue} />
        </p>
        {#if timed}
          <p
            class={[
              "mt-auto text-[clamp(7rem,27vw,19.5rem)] leading-[0.86] numeral",
              due ? "text-primary" : "",
            ]}
            role="timer"
            aria-label="Time left"
            data-timer
          >
            {due ? "+" : ""}{time(Math.abs(due ? stove.leftS : Math.ceil(stove.leftS)))}
          </p>
          <div class="mt-4 h-4 w-full overflow-hidden rounded bg-base-200" aria-hidden="true">
            <div
              class={["h-full", checking || due ? "bg-primary" : "bg-[#7d8f93]"]}
              style:width={`${Math.min(100, (stove.spentS / stove.timerS) * 100)}%`}
            ></div>
          </div>
          <p class="mt-2 min-h-7 text-lg text-primary" role="status">
            {#if due}Past its time: look, and decide{:else if checking}Look for the cue from now on{/if}
          </p>
        {:else if waiting && stove.surface && stove.hotInS !== null}
          <p
            class={[
              "mt-auto text-[clamp(5rem,18vw,12rem)] leading-[0.86] numeral",
              hot ? "text-primary" : "",
            ]}
            role="timer"
            aria-label="Until the surface is hot enough"
          >
            {hot ? "Hot" : time(Math.ceil(stove.hotInS))}
          </p>
          <p class="mt-3 mb-auto text-xl text-[#ffd9a0]" data-surface><Say text={stove.surface.message} /></p>
        {:else}
          <div class="mt-6 mb-auto flex flex-wrap items-end gap-x-10 gap-y-3">
            {#if onSurface}{@render surface(
                "[&_svg]:h-[min(26dvh,12rem)] sm:[&_svg]:h-[min(40dvh,26rem)] [&_svg]:w-auto [&_svg]:max-w-full",
              )}{/if}
            <p class="text-2xl text-[#a9b5b6]">
              <span class="block text-[clamp(2.5rem,7vw,4.5rem)] leading-none numeral text-base-content"
                >{time(stove.spentS)}</span
              > so far. You say when.
            </p>
          </div>
        {/if}
        {#if stove.heat}<Forecast heat={stove.heat} now={stove.now} probe={heat.probe} />{/if}
        <p class="mt-1 text-base text-[#ffab9f]">
          Published floor {amount({ kind: "temp_c", value: heat.floors.leading.temp_c }, units)}{heat.floors
            .leading.hold_s
            ? ` for ${time(heat.floors.leading.hold_s)}`
            : ""}, {heat.floors.leading.authority}.
          <span class="text-[#c9d1d0]"
            >Wanted {amount({ kind: "temp_c", value: heat.target_c }, units)}{heat.probe
              ? `, pull at ${amount({ kind: "temp_c", value: heat.pull_c }, units)}`
              : ", by the cue"}.{#if lastRead && !stove.heat}
              Read {amount({ kind: "temp_c", value: lastRead.value ?? 0 }, units)}.{/if}</span
          >
        </p>
      </div>
      <div class="self-start">
        <ol class="text-xl max-lg:text-base" aria-label="What comes next">
          {#each ahead as place, at (at)}
            <li
              class={[
                "grid grid-cols-[4rem_1fr] border-b border-base-300 py-3 max-lg:py-1.5",
                at > 3 ? "max-lg:hidden" : "",
              ]}
            >
              <span class="numeral text-[#a9b5b6]"
                >{place.step.timer_s > 0 ? time(place.step.timer_s) : ""}</span
              >
              <span>{title(place.step.title, place.count)}</span>
            </li>
          {/each}
        </ol>
        {#if onSurface && (timed || waiting)}{@render surface("mt-4 [&_svg]:max-h-[12.5rem]")}{/if}
      </div>
    </main>
    {#if stove.problem}<p role="alert" class="mt-2 text-lg text-[#ffab9f]">{stove.problem}</p>{/if}
    {#if stove.away}<p role="status" class="mt-2 text-lg text-primary">
        The kitchen's server does not answer. The timers run on, and nothing is lost.
      </p>{/if}
    <div
      class="sticky bottom-0 mt-4 grid grid-cols-3 gap-3 bg-base-100 pt-1 pb-1 sm:grid-cols-[minmax(0,2.2fr)_repeat(3,minmax(0,1fr))]"
    >
      <button
        class="min-h-20 cursor-pointer rounded bg-primary px-4 text-2xl font-bold text-primary-content active:brightness-90 max-sm:col-span-3"
        onclick={press}>{step.done_word}</button
      >
      <button
        class="min-h-16 cursor-pointer rounded bg-base-200 text-xl font-semibold active:brightness-125 disabled:opacity-35"
        disabled={!timed}
        onclick={() => stove?.more()}>+ 15 s</button
      >
      <button
        class="min-h-16 cursor-pointer rounded bg-base-200 text-xl font-semibold active:brightness-125 disabled:opacity-35"
        disabled={stove.reads === "surface" && !stove.metal}
        onclick={() => (reading = stove?.reads ?? null)}
        >{stove.reads === "core" ? "Core read" : "Surface read"}</button
      >
      <button
        class="min-h-16 cursor-pointer rounded bg-base-200 text-xl font-semibold active:brightness-125 disabled:opacity-35"
        disabled={stove.standing.place === 0}
        onclick={() => stove?.back()}>Step back</button
      >
    </div>
  {/if}
</div>
<ReadingSheet
  open={reading !== null}
  cook={id}
  of={reading ?? "core"}
  now={stove?.now ?? 0}
  onclose={() => (reading = null)}
  onread={(value) => reading && stove?.read(reading, value)}
/>
