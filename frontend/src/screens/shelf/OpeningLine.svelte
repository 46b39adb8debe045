<!-- One line in, a whole plan out: what was read, what was assumed, and the questions that would narrow it. -->
<script lang="ts">
  import {
    api,
    ProblemError,
    type Edit,
    type Evaluation,
    type Formula,
    type Opening,
  } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";

  let { onbench }: { onbench: (formula: Formula) => Promise<void> } = $props();
  const examples = [
    "700 g unknown mince, iron pan, four people",
    "3 lb 80/20 on the grill for 8",
    "chuck and brisket point, 40 smashed burgers",
    "1.5 kg chuck and pork, 54 meatballs for 18",
    "rich, loose, crusty",
  ];
  let line = $state("");
  let opened = $state.raw<{ opening: Opening; evaluation: Evaluation } | null>(null);
  let answered = $state<number[]>([]);
  let problem = $state<string | null>(null);
  let busy = $state(false);

  async function attempt(run: () => Promise<void>): Promise<void> {
    busy = true;
    problem = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    } finally {
      busy = false;
    }
  }
  const open = () =>
    attempt(async () => {
      opened = null;
      opened = await api.opening(line, units.system);
      answered = [];
    });
  const answer = (edit: Edit, at: number) =>
    attempt(async () => {
      if (!opened) return;
      const next = await api.evaluate(opened.opening.formula as Formula, [edit], units.system);
      opened = {
        opening: { ...opened.opening, formula: next.formula as Opening["formula"] },
        evaluation: next.evaluation,
      };
      answered = [...answered, at];
    });
</script>

<section aria-label="Begin">
  <h1 class="text-[1.75rem] leading-tight">What have you got?</h1>
  <form
    class="mt-3 flex flex-wrap gap-2"
    onsubmit={(e) => {
      e.preventDefault();
      void open();
    }}
  >
    <input
      class="h-14 min-w-0 flex-1 basis-72 rounded-[0.25rem] border-2 border-base-content bg-paper px-4 text-lg"
      aria-label="What you have, in one line"
      placeholder={examples[0]}
      maxlength="300"
      autocomplete="off"
      bind:value={line}
    />
    <button class="act-main h-14" disabled={busy}>Plan it</button>
  </form>
  {#if problem}<p role="alert" class="mt-2 text-error">{problem}</p>{/if}
  {#if !opened}
    <p class="mt-2 flex flex-wrap items-center gap-x-4 text-sm quiet">
      <span>A weight, a meat, a fire, for how many; or how it should eat.</span>
      {#each examples as example (example)}
        <button
          class="cursor-pointer rounded py-1 text-primary underline decoration-primary/40 underline-offset-3 hover:decoration-primary"
          onclick={() => {
            line = example;
            void open();
          }}>{example}</button
        >
      {/each}
    </p>
  {:else}
    <div class="mt-4 bg-paper pb-4 shadow-sm" data-opening>
      <dl class="grid grid-cols-2 border-b border-base-300 sm:flex">
        {#each opened.evaluation.ticket.filter((f) => f.id !== "allergens") as figure (figure.id)}
          <div class="border-base-300 px-4 py-2.5 sm:flex-auto sm:border-l sm:first:border-l-0">
            <dt class="text-[0.75rem] quiet">{figure.label}</dt>
            <dd>
              <span class="block text-[1.4375rem] leading-tight numeral"><Say text={figure.value} /></span>
              <span class="block text-[0.75rem] quiet narrow"><Say text={figure.aside} /></span>
            </dd>
          </div>
        {/each}
      </dl>
      <div class="grid gap-x-8 gap-y-4 px-4 pt-3.5 md:grid-cols-[1fr_1.15fr]">
        <div class="text-[0.9375rem]">
          <h2 class="text-sm">Read from your line</h2>
          <ul>
            {#each opened.opening.read as text (text.text)}<li
                class="before:mr-1.5 before:text-primary before:content-['✓']"
              >
                <Say {text} />
              </li>{/each}
          </ul>
          <h2 class="mt-2.5 text-sm">Assumed</h2>
          <ul class="quiet">
            {#each opened.opening.assumed as text (text.text)}<li class="before:mr-1.5 before:content-['~']">
                <Say {text} />
              </li>{/each}
          </ul>
          {#if opened.opening.unread.length > 0}
            <p class="mt-2.5 text-warning">
              <span class="font-semibold">Not understood:</span>
              {opened.opening.unread.join(", ")}
            </p>
          {/if}
        </div>
        <div>
          {#if opened.opening.questions.length > answered.length}<h2 class="text-sm">
              What would narrow it most
            </h2>{/if}
          {#each opened.opening.questions as question, at (at)}
            {#if !answered.includes(at)}
              <div class="mt-1 mb-3">
                <p class="font-semibold"><Say text={question.text} /></p>
                <p class="text-[0.875rem] quiet"><Say text={question.why} /></p>
                <div class="mt-1.5 flex flex-wrap gap-2">
                  {#each question.answers as change, n (n)}
                    <button
                      class="act text-sm"
                      disabled={busy}
                      onclick={() => answer(change.edit as Edit, at)}><Say text={change.label} /></button
                    >
                  {/each}
                </div>
              </div>
            {/if}
          {/each}
          {#each opened.evaluation.counsel.filter((c) => c.severity === "limit") as c (c.rule)}
            <p class="mb-2 border-l-4 border-error pl-2.5 text-[0.875rem]">
              <span class="font-semibold"><Say text={c.title} />.</span>
              <Say text={c.reason} />
            </p>
          {/each}
          <button
            class="mt-1 act-main"
            disabled={busy}
            onclick={() =>
              attempt(async () => {
                if (opened) await onbench(opened.opening.formula as Formula);
              })}>Put it on the bench</button
          >
        </div>
      </div>
    </div>
  {/if}
</section>
