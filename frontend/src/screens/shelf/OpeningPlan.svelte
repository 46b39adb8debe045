<!-- The plan of a line: its figures, what to know, what was assumed, what would narrow it, and the way to the bench. -->
<script lang="ts">
  import type { Edit, Evaluation, Opening } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  interface Props {
    opening: Opening;
    evaluation: Evaluation;
    answered: readonly number[];
    busy: boolean;
    onanswer: (edit: Edit, at: number) => void;
    onbench: () => void;
  }
  let { opening, evaluation, answered, busy, onanswer, onbench }: Props = $props();
</script>

<dl class="grid grid-cols-2 border-b border-base-300 sm:flex">
  {#each evaluation.ticket.filter((f) => f.id !== "allergens") as figure (figure.id)}
    <div class="border-base-300 px-4 py-2.5 sm:flex-auto sm:border-l sm:first:border-l-0">
      <dt class="text-[0.75rem] quiet">{figure.label}</dt>
      <dd>
        <span class="block text-[1.4375rem] leading-tight numeral"><Say text={figure.value} /></span>
        <span class="block text-[0.75rem] quiet narrow"><Say text={figure.aside} /></span>
      </dd>
    </div>
  {/each}
</dl>
<div class="grid gap-x-8 gap-y-4 px-4 pt-3.5 pb-4 md:grid-cols-[1fr_1.15fr]">
  <div class="text-[0.9375rem]">
    {#if opening.remarks.length > 0}
      <h2 class="text-sm">To know</h2>
      <ul class="mb-2.5">
        {#each opening.remarks as text, n (n)}<li class="mt-1 border-l-4 border-warning pl-2.5">
            <Say {text} />
          </li>{/each}
      </ul>
    {/if}
    <h2 class="text-sm">Assumed</h2>
    <ul class="quiet">
      {#each opening.assumed as text, n (n)}<li class="pl-4 -indent-4 before:mr-1.5 before:content-['~']">
          <Say {text} />
        </li>{/each}
    </ul>
  </div>
  <div>
    {#if opening.questions.length > answered.length}<h2 class="text-sm">What would narrow it most</h2>{/if}
    {#each opening.questions as question, at (at)}
      {#if !answered.includes(at)}
        <div class="mt-1 mb-3">
          <p class="font-semibold"><Say text={question.text} /></p>
          <p class="text-[0.875rem] quiet"><Say text={question.why} /></p>
          <div class="mt-1.5 flex flex-wrap gap-2">
            {#each question.answers as change, n (n)}
              <button class="act text-sm" disabled={busy} onclick={() => onanswer(change.edit as Edit, at)}
                ><Say text={change.label} /></button
              >
            {/each}
          </div>
        </div>
      {/if}
    {/each}
    {#each evaluation.counsel.filter((c) => c.severity === "limit") as c (c.rule)}
      <p class="mb-2 border-l-4 border-error pl-2.5 text-[0.875rem]">
        <span class="font-semibold"><Say text={c.title} />.</span>
        <Say text={c.reason} />
      </p>
    {/each}
    <button class="mt-1 act-main" disabled={busy} onclick={onbench}>Put it on the bench</button>
  </div>
</div>
