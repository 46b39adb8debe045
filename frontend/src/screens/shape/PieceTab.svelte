<!-- The piece to scale, raw and cooked, against what it lies in or on; sizes go both ways. -->
<script lang="ts">
  import type { StepProps } from "../step";
  import BallPicture from "./BallPicture.svelte";
  import BlockPicture from "./BlockPicture.svelte";
  import FlatPicture from "./FlatPicture.svelte";
  import LumpPicture from "./LumpPicture.svelte";
  import PieceFacts from "./PieceFacts.svelte";
  import PieceFit from "./PieceFit.svelte";
  import PieceFields from "./PieceFields.svelte";

  let props: StepProps = $props();
  const { bench, onworking } = $derived(props);
  const shape = $derived(props.evaluation.shape);
  const bread = $derived(
    shape.bun_diameter_mm > 0 ? props.kitchen.buns.find((b) => b.key === props.formula.shape.bun) : undefined,
  );
  const fits = $derived(!!shape.fit || !!shape.vessel || !!shape.scoop);
</script>

<PieceFields {...props} />
<div
  class={[
    "mt-4 grid grid-cols-[minmax(0,1fr)] items-start gap-x-6 gap-y-4",
    fits && "sm:grid-cols-[minmax(0,1fr)_11.5rem]",
  ]}
>
  {#if ["disc", "filled", "spread"].includes(shape.form)}
    <FlatPicture
      {bench}
      {shape}
      {bread}
      look={props.formula.shape}
      stacked={props.evaluation.style.stacked ? props.formula.dish.pieces_per_guest : 1}
    />
  {:else if shape.form === "ball"}
    <BallPicture {bench} {shape} />
  {:else if shape.form === "crumbled" && shape.lumps}
    <LumpPicture lumps={shape.lumps} />
  {:else}
    <BlockPicture {bench} {shape} />
  {/if}
  {#if fits}<PieceFit {bench} {shape} {onworking} />{/if}
</div>
<PieceFacts {shape} {onworking} />
