<!-- What to change next: where the scores of this formula stand, and the one change that promises most. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type NextChanges } from "../../lib/api/client";
  import { newVersion } from "../../lib/newVersion";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { navigate } from "../../router";
  import ScoreScale from "./ScoreScale.svelte";

  let { formula_id }: { formula_id: number } = $props();
  const asked = new Resource<number, NextChanges>((id) => api.nextChange(id));
  $effect(() => asked.ask(formula_id));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const told = new Told();
  let busy = $state(false);

  const make = (change: NextChanges["changes"][number]["change"]) =>
    told.run(async () => {
      if (busy) return;
      busy = true;
      try {
        const id = await newVersion(formula_id, change);
        await navigate(`/formula/:id/:step`, { params: { id: String(id), step: "notes" } });
      } finally {
        busy = false;
      }
    });
</script>

<section aria-label="What to change next" data-next={asked.busy ? "asking" : "ready"}>
  <h2 class="text-lg">What to change next</h2>
  {#if asked.problem}<p role="alert" class="mt-1 text-error">{asked.problem.detail}</p>{/if}
  {#if told.problem}<p role="alert" class="mt-1 text-error">{told.problem}</p>{/if}
  {#if !found}
    {#if !asked.problem}<p class="mt-1 quiet" aria-busy="true">Reading the scores …</p>{/if}
  {:else}
    {#if found.scores.length > 0}
      <p class="mt-1 text-[0.8125rem] quiet">
        The formula as it stands, by {found.cooks} scored {found.cooks === 1 ? "cook" : "cooks"}: bar, where
        it lies with eight in ten; mark, where it is wanted.
      </p>
      <ul class="mt-2" aria-label="Scores now">
        {#each found.scores as score (score.key)}<ScoreScale {score} />{/each}
      </ul>
    {/if}
    {#each found.changes as change, place (change.lever)}
      <article
        class={["border-t border-base-300 py-3", place === 0 ? "mt-3" : ""]}
        aria-label={`Change ${place + 1}`}
      >
        <p class={place === 0 ? "text-[1.0625rem] font-semibold" : "font-semibold"}>
          <Say text={change.title} />
        </p>
        <p class="text-[0.875rem]">
          For the better: {change.word},
          <span class="numeral"><Qty kind="frac" value={change.chance} /></span>
        </p>
        <p class="mt-1 text-[0.9375rem]">
          {#each change.moves as move, n (move.key)}{n > 0 ? ", " : ""}{move.title}
            <span class="numeral">{move.now.toFixed(1)} → {move.then.toFixed(1)}</span>{/each}
        </p>
        {#if place === 0}
          <ul class="mt-1.5 list-disc pl-4 text-[0.875rem] quiet">
            {#each change.why as text, n (n)}<li><Say {text} /></li>{/each}
          </ul>
        {/if}
        <button
          class={["mt-2", place === 0 ? "act-main" : "act text-sm"]}
          disabled={busy}
          onclick={() => make(change.change)}
          >Make it a version<span class="sr-only">: <Say text={change.title} /></span></button
        >
      </article>
    {/each}
    <p class="mt-1 text-[0.875rem] quiet"><Say text={found.message} /></p>
  {/if}
</section>
