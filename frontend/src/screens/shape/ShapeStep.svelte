<!-- Step 4: divide the batch, and see the piece to scale against its bun. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import BlockPicture from "./BlockPicture.svelte";
  import Division from "./Division.svelte";
  import PiecePicture from "./PiecePicture.svelte";

  let { bench, formula, evaluation, kitchen, onworking }: StepProps = $props();
  const byPiece = $derived(formula.shape.portioning === "by_piece");
  const form = $derived(evaluation.shape.form);
  const disc = $derived(form === "disc");
  const mixed = $derived(evaluation.mix.lines.length > 0);
  const cooked = $derived(evaluation.shape.cooked_diameter_mm);
</script>

<StepHead
  title="Shape"
  line={disc
    ? "Weights that multiply back on your scale, and the piece to scale against its bun."
    : "Weights that multiply back on your scale, and the piece to scale."}
/>

<div class="flex flex-wrap items-start gap-x-4 gap-y-4">
  <Segments
    label="What decides"
    options={[
      { key: "by_piece", title: "The piece" },
      { key: "by_batch", title: mixed ? "The meat" : "The batch" },
    ]}
    value={formula.shape.portioning}
    onpick={(key) => bench.edit({ kind: "choose", field: "portioning", key })}
  />
  <ValueField
    {bench}
    figure="piece_mass"
    label={form === "crumbled" ? "A portion" : "A raw piece"}
    kind="mass_g"
    value={byPiece ? formula.shape.piece_mass_g : evaluation.portions.piece_mass_g}
    width="7.5rem"
  />
  <ValueField
    {bench}
    figure="batch_mass"
    label={mixed ? "Meat in the batch" : "The batch"}
    kind="mass_g"
    value={byPiece ? evaluation.blend.batch_mass_g : formula.shape.batch_mass_g}
    width="7.5rem"
  />
  {#if form !== "ball" && form !== "crumbled"}
    <ValueField
      {bench}
      figure="thickness"
      label={disc ? "Thickness, raw" : "Height, raw"}
      kind="length_mm"
      value={formula.shape.thickness_mm}
      width="7.25rem"
    />
  {/if}
  {#if disc}
    <PickField
      label="Bun"
      value={formula.shape.bun}
      options={kitchen.buns.map((b) => ({ key: b.key, title: b.name }))}
      onpick={(key) => bench.edit({ kind: "choose", field: "bun", key })}
      width="11.25rem"
    />
  {/if}
</div>

<Division portions={evaluation.portions} onworking={() => onworking("pieces")} />

<div
  class="mt-3 grid grid-cols-[minmax(0,1fr)] items-center gap-x-6 gap-y-4 sm:grid-cols-[minmax(0,1fr)_11rem]"
>
  {#if disc}
    <PiecePicture
      shape={evaluation.shape}
      stacked={evaluation.style.stacked ? formula.dish.pieces_per_guest : 1}
    />
  {:else if form === "crumbled"}
    <p class="quiet">Crumbled as it browns: nothing is shaped. A portion is meat and sauce together.</p>
  {:else}
    <BlockPicture shape={evaluation.shape} filled={formula.dish.style === "loaf-filled"} />
  {/if}
  <div class="flex flex-wrap gap-x-8 gap-y-3.5 sm:flex-col">
    {#if form === "disc" || form === "ball"}
      <Fact label="Raw diameter" onclick={() => onworking("diameter")}
        ><Qty kind="length_mm" value={evaluation.shape.raw_diameter_mm} /></Fact
      >
      <Fact label="Cooked diameter" onclick={() => onworking("diameter")}
        ><Qty kind="length_mm" value={cooked.low} high={cooked.high} /></Fact
      >
    {:else if form !== "crumbled"}
      <Fact label="Length, raw" onclick={() => onworking("diameter")}
        ><Qty kind="length_mm" value={evaluation.shape.length_mm} /></Fact
      >
      <Fact label="Length, cooked" onclick={() => onworking("diameter")}
        ><Qty kind="length_mm" value={cooked.low} high={cooked.high} /></Fact
      >
    {/if}
    <Fact label="Cooked weight" onclick={() => onworking("cooked_mass")}
      ><Qty
        kind="mass_g"
        value={evaluation.shape.cooked_mass_g.low}
        high={evaluation.shape.cooked_mass_g.high}
      /></Fact
    >
    {#if disc}<Fact label="Dimple">{evaluation.shape.dimple ? "Yes, or it domes" : "None needed"}</Fact>{/if}
  </div>
</div>
