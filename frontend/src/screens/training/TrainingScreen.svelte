<!-- The trainer: one round at a time, by keyboard too; how sure, what was right and why; how each kind stands. -->
<script lang="ts">
  import { phrase } from "../../lib/format";
  import { bindKeys } from "../../lib/keys";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import RoundPicture from "./RoundPicture.svelte";
  import { Trainer } from "./trainer.svelte";

  const trainer = new Trainer();
  void trainer.load();
  const shown = $derived(trainer.round?.round ?? null);
  const confidences = $derived(trainer.state?.confidences ?? []);
  const SURE = ["A guess", "Half sure", "Fairly sure", "Sure"];
  const percent = (share: number) =>
    phrase({ text: "{p}", amounts: { p: { kind: "frac", value: share } } }, units);

  /** A digit is an answer first, then how sure. */
  function digit(n: number): void {
    if (trainer.chosen === null) trainer.choose(n - 1);
    else if (!trainer.judged && confidences[n - 1] !== undefined)
      void trainer.say(confidences[n - 1] as number);
  }
  $effect(() =>
    bindKeys({
      ...Object.fromEntries([1, 2, 3, 4].map((n) => [String(n), () => digit(n)])),
      Escape: () => trainer.thinkAgain(),
      n: () => {
        if (trainer.judged) void trainer.load();
      },
    }),
  );
  let nextButton = $state<HTMLButtonElement | null>(null);
  // A button that is shut cannot be focused.
  $effect(() => {
    if (!trainer.busy) nextButton?.focus();
  });
  const practised = $derived(trainer.standings.filter((s) => s.rounds > 0).length);
</script>

<svelte:head><title>Practise · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <h1 class="text-2xl">Practise</h1>
      <p class="text-[0.875rem] quiet print:hidden">
        Each round comes from a formula of this shelf as it is computed.
      </p>
      <p class="hidden w-64 border-b border-base-content print:block">Name</p>
    </div>
    {#if trainer.problem}
      <p role="alert" class="mt-3 text-error">{trainer.problem}</p>
      <button class="mt-2 act" onclick={() => trainer.load()}>Another round</button>
    {/if}
    {#if !trainer.state}
      {#if !trainer.problem}<p class="mt-3 quiet" aria-busy="true">Drawing a round …</p>{/if}
    {:else}
      <div class="mt-5 grid gap-x-12 gap-y-8 md:grid-cols-[minmax(0,1.45fr)_minmax(0,1fr)] print:block">
        <section
          class="print:hidden"
          aria-label="Round"
          data-round={trainer.judged ? "judged" : trainer.busy ? "asking" : "open"}
        >
          {#if !shown}
            <p>No formula of this kitchen has a round yet. Put one on the shelf first.</p>
            <a class="mt-3 act-main inline-flex" href="/">To the shelf</a>
          {:else}
            <p class="text-[0.875rem] quiet">{shown.title}</p>
            <h2 class="mt-0.5 mb-3 text-xl leading-snug"><Say text={shown.question} /></h2>
            <RoundPicture picture={shown.picture} />
            <ol class="mt-4 grid gap-2 sm:grid-cols-2" aria-label="Answers">
              {#each shown.answers as text, n (n)}
                {@const right = trainer.judged?.right === n}
                {@const mine = trainer.chosen === n}
                <li>
                  <button
                    class={[
                      "flex min-h-14 w-full cursor-pointer items-center gap-3 rounded-[0.25rem] border px-4 text-left text-lg",
                      right && "border-2 border-success",
                      !right && mine && trainer.judged && "border-2 border-error",
                      !trainer.judged && mine && "border-primary bg-primary text-primary-content",
                      !mine && !right && "border-[#8b8f8a] bg-paper",
                    ]}
                    aria-pressed={mine}
                    disabled={trainer.judged !== null}
                    onclick={() => trainer.choose(n)}
                    ><kbd class="text-[0.8125rem] opacity-70" aria-hidden="true">{n + 1}</kbd>
                    <span class="numeral"><Say {text} /></span>
                    {#if right}<span class="ml-auto text-[0.875rem] font-semibold">right</span>
                    {:else if mine && trainer.judged}<span class="ml-auto text-[0.875rem]">yours</span
                      >{/if}</button
                  >
                </li>
              {/each}
            </ol>
            {#if trainer.chosen !== null && !trainer.judged}
              <fieldset class="mt-5">
                <legend class="font-semibold">How sure are you?</legend>
                <div class="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-4">
                  {#each confidences as confidence, n (confidence)}
                    <button
                      class="act min-h-14"
                      disabled={trainer.busy}
                      onclick={() => trainer.say(confidence)}
                      ><span
                        ><span class="block">{SURE[n]}</span><span
                          class="block text-[0.8125rem] numeral quiet">{percent(confidence)}</span
                        ></span
                      ></button
                    >
                  {/each}
                </div>
              </fieldset>
            {/if}
            {#if trainer.judged}
              <div class="mt-5 border-t border-base-300 pt-3" role="status">
                <p class="text-lg font-semibold">{trainer.right ? "Right." : "Not quite."}</p>
                <p class="mt-1"><Say text={trainer.judged.why} /></p>
              </div>
              <button
                bind:this={nextButton}
                class="mt-4 act-main min-h-14 px-8"
                disabled={trainer.busy}
                onclick={() => trainer.load()}>Next round</button
              >
            {/if}
            <p class="mt-4 text-[0.8125rem] quiet max-sm:hidden">
              Keys: 1 to 4 for an answer, then 1 to 4 for how sure; Escape to think again; Enter or N for the
              next.
            </p>
          {/if}
        </section>
        <section aria-label="How you stand">
          <h2 class="text-lg">How you stand</h2>
          {#if practised === 0}<p class="mt-1 quiet">
              Nothing answered yet. What is missed comes again soon, what is right later and later.
            </p>{/if}
          <ul class="mt-2">
            {#each trainer.standings as s (s.kind)}
              <li class="border-b border-base-300 py-2">
                <div class="flex items-baseline justify-between gap-3">
                  <span class="font-semibold">{s.title}</span>
                  <span class="text-[0.875rem] numeral quiet"
                    >{s.rounds}
                    {s.rounds === 1 ? "round" : "rounds"}{#if s.brier != null}, Brier {s.brier.toFixed(
                        2,
                      )}{/if}</span
                  >
                </div>
                {#if s.right_frac != null && s.confidence != null}
                  <div class="relative mt-1 h-2 bg-base-200" aria-hidden="true">
                    <span class="absolute inset-y-0 left-0 bg-primary" style:width={`${100 * s.right_frac}%`}
                    ></span>
                    <span
                      class="absolute -inset-y-0.5 w-0.5 bg-base-content"
                      style:left={`${100 * s.confidence}%`}
                    ></span>
                  </div>
                {/if}
                <p class="mt-0.5 text-[0.875rem] quiet"><Say text={s.message} /></p>
              </li>
            {/each}
          </ul>
          <p class="mt-2 text-[0.8125rem] quiet">
            Bar: share that was right; mark: how sure you were. A Brier score is the mean square between the
            two: 0 is perfect, guessing among four has 0.19. Told from five rounds on.
          </p>
          {#if practised > 0}
            <button class="mt-3 mr-2 act text-sm" onclick={() => window.print()}>Print the score</button>
            <button class="mt-3 act text-sm" disabled={trainer.busy} onclick={() => trainer.beginAnew()}
              >Begin anew</button
            >
          {/if}
        </section>
      </div>
    {/if}
  </main>
</Shell>
