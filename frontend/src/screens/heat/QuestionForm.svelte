<!-- One question of the heat: what is typed, the answer in words, and the change that brings it about. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import {
    api,
    ProblemError,
    type BrownWord,
    type Formula,
    type HeatAnswer,
    type HeatQuestion,
  } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    formula: Formula;
    kind: HeatQuestion;
    label: string;
    /** What stands in the field at first; a question without a field is a button that says it. */
    start?: string;
    reads?: "time_s" | "temp_c";
    crust?: BrownWord | null;
    more?: Snippet;
  }
  let { bench, formula, kind, label, start, reads = "time_s", crust = null, more }: Props = $props();
  // svelte-ignore state_referenced_locally
  let typed = $state(start ?? "");
  let waiting = $state(false);
  let told = $state.raw<{ of: Formula; answer?: HeatAnswer; problem?: string } | null>(null);
  // An answer belongs to the formula it was given for, however late it comes.
  const shown = $derived(told?.of === formula ? told : null);

  async function ask(event: Event): Promise<void> {
    event.preventDefault();
    const of = formula;
    waiting = true;
    try {
      const value = start === undefined ? null : (await api.read(reads, typed, units.system)).value;
      told = { of, answer: await api.heatAsk(of, { kind, value, crust }) };
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      told = { of, problem: error.problem.detail };
    } finally {
      waiting = false;
    }
  }
</script>

<form onsubmit={ask} aria-busy={waiting}>
  {#if start === undefined}<button class="act">{label}</button>{:else}
    <div class="flex flex-wrap items-end gap-3">
      <TextField {label} width="11rem" value={typed} oninput={(t) => (typed = t)} />
      {@render more?.()}
      <button class="act">Ask</button>
    </div>
  {/if}
  {#if waiting}<p class="mt-1 quiet">Marching …</p>{/if}
  {#if shown?.answer}
    {@const change = shown.answer.change}
    <p role="status" class="mt-1 max-w-[40rem] leading-snug" data-answer={kind}>
      <Say text={shown.answer.message} />
    </p>
    {#if change}
      <button
        type="button"
        class="mt-1 act"
        onclick={() =>
          bench.edit({ kind: "set", figure: change.figure, value: change.value, item: change.item })}
        >Make it so</button
      >
    {/if}
  {/if}
  {#if shown?.problem}<p role="alert" class="mt-1 text-error">{shown.problem}</p>{/if}
</form>
