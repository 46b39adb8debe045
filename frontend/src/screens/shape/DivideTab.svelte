<!-- How the batch divides: what decides, what there is to choose when it does not come out, from bowl to plate. -->
<script lang="ts">
  import { amount } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";
  import Division from "./Division.svelte";
  import Weighings from "./Weighings.svelte";
  import YieldBar from "./YieldBar.svelte";

  let { bench, formula, evaluation, onworking }: StepProps = $props();
  const mode = $derived(formula.shape.portioning);
  const mixed = $derived(evaluation.mix.lines.length > 0);
  const shared = $derived((formula.dish.guests_per_piece ?? 1) > 1);
  const batch = $derived(evaluation.batch_yield);
  const allows = $derived(batch.allows_expected);
  const appetites = [
    { key: "light", title: "Light" },
    { key: "usual", title: "Usual" },
    { key: "hearty", title: "Hearty" },
  ] as const;
</script>

<p class="quiet">Whole steps of your scale, and a sum that comes out exactly.</p>
<div class="mt-3 flex flex-wrap items-start gap-x-4 gap-y-3.5">
  <Segments
    label="What decides"
    options={[
      { key: "by_piece", title: "The piece" },
      { key: "by_batch", title: mixed ? "The meat" : "The batch" },
      { key: "by_weights", title: "Both weights" },
    ]}
    value={mode}
    onpick={(key) => bench.edit({ kind: "choose", field: "portioning", key })}
  />
  <ValueField
    {bench}
    figure="piece_mass"
    label={evaluation.shape.form === "crumbled" ? "A portion" : "A raw piece"}
    kind="mass_g"
    value={mode === "by_batch" ? evaluation.portions.piece_mass_g : formula.shape.piece_mass_g}
  />
  <ValueField
    {bench}
    figure="batch_mass"
    label={mixed ? "Meat in the batch" : "The batch"}
    kind="mass_g"
    value={mode === "by_piece" ? evaluation.blend.batch_mass_g : formula.shape.batch_mass_g}
  />
  {#if mode !== "by_weights"}
    <ValueField
      {bench}
      figure="spare_pieces"
      label="Over and above"
      kind="count"
      value={formula.dish.spare_pieces ?? 0}
      hint="pieces to spare"
      width="7rem"
    />
  {/if}
</div>
<div class="mt-3 mb-3 flex flex-wrap items-start gap-x-4 gap-y-3.5">
  <ValueField {bench} figure="guests" label="Guests" kind="count" value={formula.dish.guests} width="7rem" />
  {#if shared}
    <ValueField
      {bench}
      figure="guests_per_piece"
      label="Share one"
      kind="count"
      value={formula.dish.guests_per_piece ?? 1}
      width="7rem"
    />
  {:else}
    <ValueField
      {bench}
      figure="pieces_per_guest"
      label="Pieces each"
      kind="count"
      value={formula.dish.pieces_per_guest}
      width="7rem"
    />
  {/if}
  <div>
    <span class="mb-0.5 block text-[0.8125rem] quiet">Or by appetite</span>
    <div class="flex gap-1.5" role="group" aria-label="Or by appetite">
      {#each appetites as one (one.key)}
        <button
          class="act text-sm"
          onclick={() => bench.edit({ kind: "choose", field: "appetite", key: one.key })}>{one.title}</button
        >
      {/each}
    </div>
  </div>
</div>

<Division portions={evaluation.portions} onworking={() => onworking("pieces")} />
{#if batch.choices.length > 0}
  <section aria-label="It does not divide" class="mt-2.5">
    <h2 class="text-base">It does not divide: who gets the rest?</h2>
    <div class="mt-1 grid gap-x-4 sm:grid-cols-2">
      {#each batch.choices as choice, at (at)}
        <button
          class={[
            "flex min-h-11 cursor-pointer items-baseline justify-between gap-3 border-b border-base-300 px-1 py-1.5 text-left",
            choice.chosen ? "font-semibold" : "hover:bg-base-200",
          ]}
          aria-pressed={choice.chosen}
          onclick={() => !choice.chosen && bench.edit(choice.edit)}
        >
          <span
            ><span
              aria-hidden="true"
              class={[
                "mr-1.5 inline-block size-3 rounded-full border-2 border-primary",
                choice.chosen && "bg-primary",
              ]}
            ></span><Say text={choice.label} /></span
          >
          <span class="numeral whitespace-nowrap"><Say text={choice.result} /></span>
        </button>
      {/each}
    </div>
  </section>
{/if}

<section aria-label="From bowl to plate" class="mt-5">
  <div class="mb-2 flex flex-wrap items-end justify-between gap-x-5 gap-y-2">
    <h2 class="text-base">From bowl to plate</h2>
    <div class="flex items-end gap-2">
      {#if !allows}
        <button
          class="act text-sm"
          onclick={() =>
            bench.edit({ kind: "set", figure: "loss", value: Math.round(batch.expected_loss_g), item: "" })}
          >{`Allow for ${amount({ kind: "mass_g", value: Math.round(batch.expected_loss_g) }, units)}`}</button
        >
      {/if}
      <ValueField
        {bench}
        figure="loss"
        label="Handling loss"
        kind="mass_g"
        value={batch.loss_g}
        width="9rem"
      />
    </div>
  </div>
  <YieldBar {evaluation} {onworking} />
</section>

<Weighings {bench} step={evaluation.portions.step_g} />
