<!-- One line in, a whole plan out: how it was read, what was assumed, and the questions that would narrow it. -->
<script lang="ts">
  import MarkedLine from "../../lib/ui/MarkedLine.svelte";
  import type { Edit, Formula } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";
  import { OpeningState } from "./opening.svelte";
  import OpeningPlan from "./OpeningPlan.svelte";

  let { onbench }: { onbench: (formula: Formula) => Promise<void> } = $props();
  const examples = [
    "700 g unknown mince, iron pan, four people",
    "3 lb 80/20 on the grill for 8",
    "chuck and brisket point, 40 smashed burgers",
    "20 meatballs for 6, no pork, gluten free",
    "rich, loose, crusty",
  ];
  const state = new OpeningState();
  const opened = $derived(state.opened);
</script>

<section aria-label="Begin">
  <h1 class="text-[1.75rem] leading-tight">What have you got?</h1>
  <form
    class="mt-3 flex flex-wrap gap-2"
    onsubmit={(e) => {
      e.preventDefault();
      void state.read();
    }}
  >
    <input
      class="h-14 min-w-0 flex-1 basis-72 rounded-[0.25rem] border-2 border-base-content bg-paper px-4 text-lg"
      aria-label="What you have, in one line"
      placeholder={examples[0]}
      maxlength="300"
      autocomplete="off"
      spellcheck="false"
      bind:value={() => state.line, (line) => state.type(line)}
    />
    <button class="act-main h-14" disabled={state.busy}>Plan it</button>
  </form>
  {#if state.problem}<p role="alert" class="mt-2 text-error">{state.problem}</p>{/if}
  {#if !opened}
    <div class="mt-2 flex flex-wrap items-center gap-x-4 text-sm quiet">
      <span>A weight, a meat, a fire, for how many; or how it should eat.</span>
      {#each examples as example (example)}
        <button
          class="cursor-pointer rounded py-1 text-primary underline decoration-primary/40 underline-offset-3 hover:decoration-primary"
          onclick={() => state.take(example)}>{example}</button
        >
      {/each}
      <a class="rounded py-1 text-primary underline decoration-primary/40 underline-offset-3" href="/recipe"
        >Paste a whole recipe</a
      >
    </div>
  {:else}
    <div class="mt-4 bg-paper shadow-sm" data-opening>
      <div class="border-b border-base-300 px-4 pt-3 pb-3.5">
        <MarkedLine
          text={opened.opening.text}
          pieces={opened.opening.pieces}
          stale={state.line.split(/\s+/).filter(Boolean).join(" ") !== opened.opening.text}
          onreplace={(line) => state.take(line)}
        />
      </div>
      {#each opened.opening.asks as ask, at (at)}
        <div class="border-b border-base-300 px-4 py-3 last:border-b-0" role="group" aria-label="To settle">
          <p class="text-[1.0625rem] font-semibold"><Say text={ask.text} /></p>
          <div class="mt-2 flex flex-wrap gap-2">
            {#each ask.choices as choice, n (n)}
              <button class="act" disabled={state.busy} onclick={() => state.take(choice.text)}
                ><Say text={choice.label} /></button
              >
            {/each}
          </div>
        </div>
      {/each}
      {#if opened.evaluation && opened.opening.formula}
        <OpeningPlan
          opening={opened.opening}
          evaluation={opened.evaluation}
          answered={state.answered}
          busy={state.busy}
          onanswer={(edit: Edit, at: number) => state.answer(edit, at)}
          onbench={() => state.attempt(() => onbench(opened.opening.formula as Formula))}
        />
      {/if}
    </div>
  {/if}
</section>
