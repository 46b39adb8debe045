<!-- One question of the heat: what is typed, the answer in words, and the change that brings it about. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import {
    api,
    type BrownWord,
    type Formula,
    type HeatAnswer,
    type HeatQuestion,
  } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { Resource } from "../../lib/resource.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    formula: Formula;
    kind: HeatQuestion;
    label: string;
    /** What stands in the field at first; a question without a field is asked as it is. */
    start?: string;
    reads?: "time_s" | "temp_c";
    crust?: BrownWord | null;
    more?: Snippet;
  }
  let { bench, formula, kind, label, start, reads = "time_s", crust = null, more }: Props = $props();
  // svelte-ignore state_referenced_locally
  let typed = $state(start ?? "");
  interface Asked {
    of: Formula;
    text: string;
    crust: BrownWord | null;
  }
  const told = new Resource<Asked, { of: Formula; answer: HeatAnswer }>(
    async ({ of, text, crust: wanted }, signal) => {
      const value = start === undefined ? null : (await api.read(reads, text, units.system)).value;
      return { of, answer: await api.heatAsk(of, { kind, value, crust: wanted }, signal) };
    },
    { pauseMs: 300 },
  );
  // The answer is there as soon as the question is, and belongs to the formula it was given for.
  $effect(() => told.ask({ of: formula, text: typed, crust }));
  const shown = $derived(!told.problem && told.value?.of === formula ? told.value : null);
</script>

<section aria-busy={told.busy} aria-label={label}>
  {#if start === undefined}<h3 class="text-[0.9375rem] font-semibold">{label}</h3>{:else}
    <div class="flex flex-wrap items-end gap-3">
      <TextField {label} width="11rem" value={typed} oninput={(t) => (typed = t)} />
      {@render more?.()}
    </div>
  {/if}
  {#if told.busy && !shown}<p class="mt-1 quiet">Computing…</p>{/if}
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
        >Use this answer</button
      >
    {/if}
  {/if}
  {#if told.problem}<p role="alert" class="mt-1 text-error">{told.problem.detail}</p>{/if}
</section>
