<!-- Step 4: divide the batch, and see the piece to scale against its bun. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import Division from "./Division.svelte";
  import PiecePicture from "./PiecePicture.svelte";

  let { bench, formula, evaluation, kitchen, onworking }: StepProps = $props();
  const byPiece = $derived(formula.shape.portioning === "by_piece");
  const cooked = $derived(evaluation.shape.cooked_diameter_mm);
</script>

<StepHead
  title="Shape"
  line="Weights that multiply back on your scale, and the piece to scale against its bun."
/>

<div class="flex flex-wrap items-start gap-x-4 gap-y-4">
  <div role="radiogroup" aria-label="What decides" class="flex flex-col">
    <span class="mb-0.5 text-[0.8125rem] quiet">What decides</span>
    <div class="flex overflow-hidden rounded-[0.25rem] border border-[#8b8f8a]">
      {#each [["by_piece", "The piece"], ["by_batch", "The batch"]] as const as [key, title] (key)}
        {@const chosen = formula.shape.portioning === key}
        <button
          role="radio"
          aria-checked={chosen}
          class={[
            "h-10 cursor-pointer px-2.5 font-semibold",
            chosen ? "bg-primary text-primary-content" : "bg-paper hover:bg-base-200",
          ]}
          onclick={() => !chosen && bench.edit({ kind: "choose", field: "portioning", key })}>{title}</button
        >
      {/each}
    </div>
  </div>
  <ValueField
    {bench}
    figure="piece_mass"
    label="A raw piece"
    kind="mass_g"
    value={byPiece ? formula.shape.piece_mass_g : evaluation.portions.piece_mass_g}
    width="7.5rem"
  />
  <ValueField
    {bench}
    figure="batch_mass"
    label="The batch"
    kind="mass_g"
    value={byPiece ? evaluation.portions.batch_mass_g : formula.shape.batch_mass_g}
    width="7.5rem"
  />
  <ValueField
    {bench}
    figure="thickness"
    label="Thickness, raw"
    kind="length_mm"
    value={formula.shape.thickness_mm}
    width="7.25rem"
  />
  <PickField
    label="Bun"
    value={formula.shape.bun}
    options={kitchen.buns.map((b) => ({ key: b.key, title: b.name }))}
    onpick={(key) => bench.edit({ kind: "choose", field: "bun", key })}
    width="11.25rem"
  />
</div>

<Division portions={evaluation.portions} onworking={() => onworking("pieces")} />

<div
  class="mt-3 grid grid-cols-[minmax(0,1fr)] items-center gap-x-6 gap-y-4 sm:grid-cols-[minmax(0,1fr)_11rem]"
>
  <PiecePicture
    shape={evaluation.shape}
    stacked={evaluation.style.stacked ? formula.dish.pieces_per_guest : 1}
  />
  <div class="flex flex-wrap gap-x-8 gap-y-3.5 sm:flex-col">
    <Fact label="Raw diameter" onclick={() => onworking("diameter")}
      ><Qty kind="length_mm" value={evaluation.shape.raw_diameter_mm} /></Fact
    >
    <Fact label="Cooked diameter" onclick={() => onworking("diameter")}
      ><Qty kind="length_mm" value={cooked.low} high={cooked.high} /></Fact
    >
    <Fact label="Cooked weight" onclick={() => onworking("cooked_mass")}
      ><Qty
        kind="mass_g"
        value={evaluation.shape.cooked_mass_g.low}
        high={evaluation.shape.cooked_mass_g.high}
      /></Fact
    >
    <Fact label="Dimple">{evaluation.shape.dimple ? "Yes, or it domes" : "None needed"}</Fact>
  </div>
</div>
