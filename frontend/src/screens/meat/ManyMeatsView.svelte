<!-- Many meats to a target: what may come in, the limits, the aim; and the answers with what binds them. -->
<script lang="ts">
  import { tick, untrack } from "svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { leadToRefused } from "../../lib/refusal";
  import type { StepProps } from "../step";
  import AnswerCard from "./AnswerCard.svelte";
  import CandidateTable from "./CandidateTable.svelte";
  import SwapPrices from "./SwapPrices.svelte";
  import { ManyMeats } from "./target.svelte";

  let { bench, formula, evaluation, catalogue }: StepProps = $props();
  const wish = untrack(() => new ManyMeats(evaluation, catalogue));
  const species = ["beef", "pork", "veal", "lamb", "turkey", "chicken", "venison"];
  const refusedAt = (part: string) => (wish.refusal?.pointer.includes(part) ? wish.refusal.detail : null);
  let results = $state<HTMLElement>();
  async function look(): Promise<void> {
    wish.solve(formula, evaluation);
    await tick();
    results?.scrollIntoView({ block: "nearest" });
  }
  const placed = ["fat_low", "fat_high", "confidence", "collagen"];
  let form = $state<HTMLFormElement>();
  $effect(() => {
    if (wish.refusal) void tick().then(() => leadToRefused(form));
  });
</script>

<form
  bind:this={form}
  onsubmit={(e) => {
    e.preventDefault();
    void look();
  }}
>
  <div class="flex flex-wrap items-start gap-x-4 gap-y-3">
    <TextField
      label="Fat, at least"
      width="5.75rem"
      value={wish.fatLow}
      oninput={(t) => ((wish.fatLow = t), (wish.stale = true))}
      refused={refusedAt("fat_low")}
    />
    <TextField
      label="Fat, at most"
      width="5.75rem"
      value={wish.fatHigh}
      oninput={(t) => ((wish.fatHigh = t), (wish.stale = true))}
      refused={refusedAt("fat_high")}
    />
    <TextField
      label="Sure in"
      width="6.5rem"
      placeholder="any"
      value={wish.confidence}
      oninput={(t) => ((wish.confidence = t), (wish.stale = true))}
      hint="of batches, e.g. 80 %"
      refused={refusedAt("confidence")}
    />
    <PickField
      label="Best is"
      width="12.5rem"
      value={wish.aim}
      options={catalogue.aims}
      onpick={(key) => ((wish.aim = key as typeof wish.aim), (wish.stale = true))}
    />
    <PickField
      label="Meats at most"
      width="6rem"
      value={String(wish.mostMeats)}
      options={[1, 2, 3, 4, 5, 6, 7, 8].map((n) => ({ key: String(n), title: String(n) }))}
      onpick={(key) => ((wish.mostMeats = Number(key)), (wish.stale = true))}
    />
  </div>
  <details class="mt-3">
    <summary class="min-h-8 cursor-pointer text-[0.9375rem] font-semibold text-primary"
      >More limits: a species, sinew, whole packs</summary
    >
    <div class="mt-2 flex flex-wrap items-start gap-x-4 gap-y-3">
      <PickField
        label="Of one species"
        width="8.5rem"
        value={wish.species}
        options={[{ key: "", title: "no limit" }, ...species.map((s) => ({ key: s, title: s }))]}
        onpick={(key) => ((wish.species = key), (wish.stale = true))}
      />
      <TextField
        label="at least"
        width="5.5rem"
        placeholder="0 %"
        value={wish.speciesLeast}
        oninput={(t) => ((wish.speciesLeast = t), (wish.stale = true))}
      />
      <TextField
        label="at most"
        width="5.5rem"
        placeholder="100 %"
        value={wish.speciesMost}
        oninput={(t) => ((wish.speciesMost = t), (wish.stale = true))}
      />
      <TextField
        label="Collagen of protein, at most"
        width="11rem"
        placeholder="no limit"
        value={wish.collagen}
        oninput={(t) => ((wish.collagen = t), (wish.stale = true))}
        refused={refusedAt("collagen")}
      />
      <label class="flex min-h-10 items-center gap-2 self-end">
        <input
          type="checkbox"
          class="size-5 accent-[var(--color-primary)]"
          checked={wish.wholePacks}
          onchange={(e) => ((wish.wholePacks = e.currentTarget.checked), (wish.stale = true))}
        /> pay for whole packs
      </label>
    </div>
  </details>

  <CandidateTable {wish} {catalogue} {evaluation} />

  <div class="mt-3 flex flex-wrap items-center gap-4">
    <button class="act-main" disabled={wish.busy || wish.candidates.length === 0}>Find blends</button>
    <p class="text-[0.875rem] quiet" role="status">
      {#if wish.busy}Looking …{:else if wish.solved && wish.stale}The wish changed since; look again.{:else}{catalogue.aims.find(
          (a) => a.key === wish.aim,
        )?.why}{/if}
    </p>
  </div>
</form>
{#if wish.refusal && !placed.some((p) => wish.refusal?.pointer.includes(p))}
  <p role="alert" class="mt-3 text-error">{wish.refusal.detail}</p>
{/if}
{#if wish.solved}
  <section bind:this={results} aria-label="Blends found" class={["mt-5", wish.stale && "opacity-60"]}>
    {#if wish.solved.answers.length === 0}
      <h2 class="text-base text-error">No blend of these meats meets that</h2>
      <p class="mt-1 text-[0.9375rem]">The smallest changes that would let one:</p>
      <ul class="mt-1 list-disc pl-5">
        {#each wish.solved.changes as change, at (at)}<li><Say text={change} /></li>{/each}
      </ul>
    {:else}
      <ol class="space-y-3">
        {#each wish.solved.answers as found, at (at)}
          <AnswerCard {bench} {found} rank={at + 1} />
        {/each}
      </ol>
    {/if}
    <SwapPrices swaps={wish.solved.swaps} />
  </section>
{/if}
