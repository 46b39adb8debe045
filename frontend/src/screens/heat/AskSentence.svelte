<!-- A question of the heat as a sentence: its quantity is changed in place, and the answer is there as soon as it is. -->
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
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    formula: Formula;
    kind: HeatQuestion;
    /** What the quantity is, for those who do not see the sentence. */
    label: string;
    before: string;
    /** Between the quantity and the answer, and after it; without them the answer is a sentence of its own. */
    between?: string;
    after?: string;
    answers?: "length_mm" | "temp_c" | "time_s";
    /** What stands in the sentence at first; one without a quantity is asked as it is. */
    start?: string;
    reads?: "time_s" | "temp_c";
    crust?: BrownWord | null;
    /** What is chosen within the sentence, before the quantity. */
    choice?: Snippet;
    onanswer?: (answer: HeatAnswer | null, asked: number | null) => void;
  }
  let {
    bench,
    formula,
    kind,
    label,
    before,
    between = "",
    after = "",
    answers,
    start,
    reads = "time_s",
    crust = null,
    choice,
    onanswer,
  }: Props = $props();
  const uid = $props.id();
  // svelte-ignore state_referenced_locally
  let typed = $state(start ?? "");
  interface Asked {
    of: Formula;
    text: string;
    crust: BrownWord | null;
  }
  const told = new Resource<Asked, { of: Formula; asked: number | null; answer: HeatAnswer }>(
    async ({ of, text, crust: wanted }, signal) => {
      const asked = start === undefined ? null : (await api.read(reads, text, units.system)).value;
      return { of, asked, answer: await api.heatAsk(of, { kind, value: asked, crust: wanted }, signal) };
    },
    { pauseMs: 300 },
  );
  // The answer belongs to the formula it was given for.
  $effect(() => told.ask({ of: formula, text: typed, crust }));
  const shown = $derived(!told.problem && told.value?.of === formula ? told.value : null);
  $effect(() => onanswer?.(shown?.answer ?? null, shown?.asked ?? null));
  const value = $derived(answers ? (shown?.answer.value ?? null) : null);
</script>

<li class="border-b border-base-300 py-2.5" aria-busy={told.busy} aria-label={label}>
  <div class="flex flex-wrap items-center justify-between gap-x-5 gap-y-1">
    <p class="min-w-0 flex-1 basis-[22rem] text-[1.0625rem] leading-normal">
      {before}
      {@render choice?.()}
      {#if start !== undefined}<input
          id={uid}
          class={[
            "mx-0.5 h-11 w-[5.5rem] rounded-t-[0.25rem] border-0 border-b-2 bg-base-200 px-1.5 text-center numeral",
            told.problem ? "border-error" : "border-primary",
          ]}
          autocomplete="off"
          spellcheck="false"
          aria-label={label}
          aria-invalid={told.problem ? true : undefined}
          aria-describedby={told.problem ? `${uid}-no` : undefined}
          value={typed}
          oninput={(e) => (typed = e.currentTarget.value)}
        />{/if}
      <span role="status" data-answer={kind}>
        {#if told.busy && !shown}<span class="quiet">…</span>
        {:else if shown}
          {#if value !== null && answers}{between}
            <span class="text-[1.25rem] numeral font-semibold"><Qty kind={answers} {value} /></span>{after}
          {:else}<Say text={shown.answer.message} />{/if}
        {/if}
      </span>
    </p>
    {#if shown?.answer.change}
      {@const change = shown.answer.change}
      <button
        type="button"
        class="act text-sm"
        onclick={() =>
          bench.edit({ kind: "set", figure: change.figure, value: change.value, item: change.item })}
        >Use this answer<span class="sr-only">: {label}</span></button
      >
    {/if}
  </div>
  {#if told.problem}<p id={`${uid}-no`} role="alert" class="text-[0.875rem] text-error">
      {told.problem.detail}
    </p>{/if}
</li>
