<!-- Step 2: the blend as a picture to scale, and the same blend as a table. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import type { StepProps } from "../step";
  import BlendPicture from "./BlendPicture.svelte";
  import BlendTable from "./BlendTable.svelte";

  let { bench, evaluation, catalogue, onworking }: StepProps = $props();
  const used = $derived(new Set(evaluation.blend.parts.map((p) => p.meat)));
  const free = $derived(catalogue.meats.filter((m) => !used.has(m.key)));
</script>

<StepHead title="Meat" line="Drag an edge, type a share or a weight, or nudge with the arrow keys." />
<BlendPicture {bench} {evaluation} />
<BlendTable {bench} {evaluation} {catalogue} />
{#if bench.refusal && ["move-edge", "add-meat", "swap-meat", "remove-meat", "lock-meat"].includes(bench.refusal.target)}
  <p role="alert" class="mt-2 text-sm text-error">{bench.refusal.detail}</p>
{/if}
<div class="mt-3 flex flex-wrap items-end gap-x-8 gap-y-3">
  {#if evaluation.blend.parts.length < 8}
    <PickField
      label="Add a meat"
      value=""
      width="15rem"
      options={[
        { key: "", title: "Choose from the larder …" },
        ...free.map((m) => ({ key: m.key, title: m.name })),
      ]}
      onpick={(meat) => meat && bench.edit({ kind: "add-meat", meat })}
    />
  {/if}
  <Fact label="Blend a kilo" onclick={() => onworking("cost")}
    ><Qty kind="price_per_kg" value={Number(evaluation.cost.blend_price_per_kg)} /></Fact
  >
  {#if evaluation.names.length > 0}
    <Fact label="May be called" onclick={() => onworking("names")}>
      {evaluation.names.filter((n) => n.allowed).map((n) => n.name)[0] ?? "neither ground beef nor hamburger"}
    </Fact>
  {/if}
</div>
