<!-- Step 1: what, for how many. Each style is its own usual piece, cut through, all of a dish to one scale. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import StyleSection from "./StyleSection.svelte";

  let { bench, formula, evaluation, catalogue, onworking }: StepProps = $props();
  const dishes = [
    { key: "burger", title: "Burger" },
    { key: "meatball", title: "Meatball" },
    { key: "meatloaf", title: "Meatloaf" },
    { key: "sauce", title: "Meat sauce" },
  ] as const;
  const styles = $derived(catalogue.styles.filter((s) => s.dish === formula.dish.dish));
  const widest = $derived(Math.max(...styles.map((s) => s.raw_diameter_mm), 60));
  const tallest = $derived(Math.max(...styles.map((s) => s.thickness_mm)));
  // Up to four stand two in a row, as large as that leaves room for.
  const few = $derived(styles.length <= 4);
  const shared = $derived((formula.dish.guests_per_piece ?? 1) > 1 || formula.dish.dish === "meatloaf");
</script>

<header class="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
  <div>
    <h1 class="text-[1.5rem] leading-tight">Dish</h1>
    <p class="mt-0.5 quiet">Usual pieces cut through, to one scale.</p>
  </div>
  <Segments
    label="Dish"
    showLabel={false}
    options={dishes}
    value={formula.dish.dish}
    onpick={(key) => {
      const first = catalogue.styles.find((s) => s.dish === key);
      if (first) bench.edit({ kind: "choose", field: "style", key: first.key });
    }}
  />
</header>

<div
  role="radiogroup"
  aria-label="Style"
  class={["grid gap-x-3 gap-y-2.5 sm:grid-cols-2", few ? "" : "xl:grid-cols-3"]}
>
  {#each styles as style (style.key)}
    {@const chosen = style.key === formula.dish.style}
    <button
      role="radio"
      aria-checked={chosen}
      class={[
        "flex cursor-pointer flex-col rounded-[0.25rem] border px-3 pt-2.5 pb-2 text-left",
        chosen
          ? "border-primary bg-paper ring-2 ring-primary"
          : "border-base-300 hover:border-[#8b8f8a] hover:bg-paper",
      ]}
      onclick={() => bench.edit({ kind: "choose", field: "style", key: style.key })}
    >
      <span class="flex w-full items-baseline justify-between gap-2">
        <span class="font-[680]">{style.title}</span>
        <span class="text-[0.9375rem] numeral"><Qty kind="mass_g" value={style.piece_mass_g} /></span>
      </span>
      <StyleSection {style} {widest} {tallest} large={few} />
      <span class="mt-1 block min-h-[2.4em] text-[0.8125rem] leading-tight quiet">{style.line}</span>
    </button>
  {/each}
</div>

<div class="mt-5 flex flex-wrap items-start gap-x-6 gap-y-4 border-t border-base-300 pt-4">
  <ValueField {bench} figure="guests" label="Guests" kind="count" value={formula.dish.guests} />
  {#if shared}
    <ValueField
      {bench}
      figure="guests_per_piece"
      label="Guests to a loaf"
      kind="count"
      value={formula.dish.guests_per_piece ?? 1}
    />
  {:else if formula.dish.dish !== "sauce"}
    <ValueField
      {bench}
      figure="pieces_per_guest"
      label="Pieces each"
      kind="count"
      value={formula.dish.pieces_per_guest}
    />
  {/if}
  <div class="flex flex-wrap gap-x-8 gap-y-3 pt-0.5">
    <Fact
      label={formula.dish.dish === "sauce" ? "Portions" : "Pieces in all"}
      onclick={() => onworking("pieces")}><Qty kind="count" value={evaluation.portions.pieces} /></Fact
    >
    <Fact label="Batch"><Qty kind="mass_g" value={evaluation.portions.batch_mass_g} /></Fact>
    {#if evaluation.blend.batch_mass_g !== evaluation.portions.batch_mass_g}
      <Fact label="Meat in it" onclick={() => onworking("pieces")}
        ><Qty kind="mass_g" value={evaluation.blend.batch_mass_g} /></Fact
      >
    {/if}
    <Fact label="Usual fat">
      <Qty kind="frac" value={evaluation.style.fat_band_frac[0]} high={evaluation.style.fat_band_frac[1]} />
    </Fact>
    <Fact label="Waves" onclick={() => onworking("waves")}><Qty kind="count" value={evaluation.waves} /></Fact
    >
  </div>
</div>
