<!-- The blend as a picture to scale and as a table; the school it starts from; how sure it is. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { StepProps } from "../step";
  import BlendPicture from "./BlendPicture.svelte";
  import BlendTable from "./BlendTable.svelte";

  let { bench, evaluation, catalogue, onworking }: StepProps = $props();
  const used = $derived(new Set(evaluation.blend.parts.map((p) => p.meat)));
  const free = $derived(catalogue.meats.filter((m) => !used.has(m.key) && !m.retired));
  const band = $derived(evaluation.style.fat_band_frac);
  const refusals = ["move-edge", "add-meat", "swap-meat", "remove-meat", "lock-meat", "pick-lot", "school"];
  let why = $state("");
</script>

<BlendPicture {bench} {evaluation} />
<BlendTable {bench} {evaluation} {catalogue} />
{#if bench.refusal && refusals.includes(bench.refusal.target)}
  <p role="alert" class="mt-2 text-sm text-error">{bench.refusal.detail}</p>
{/if}
<div class="mt-3 flex flex-wrap items-end gap-x-4 gap-y-3">
  {#if evaluation.blend.parts.length < 8}
    <PickField
      label="Add a meat"
      value=""
      width="10.75rem"
      options={[{ key: "", title: "From the larder …" }, ...free.map((m) => ({ key: m.key, title: m.name }))]}
      onpick={(meat) => meat && bench.edit({ kind: "add-meat", meat })}
    />
  {/if}
  <PickField
    label="Start as a school does"
    value=""
    width="10.75rem"
    options={[
      { key: "", title: "Choose a school …" },
      ...catalogue.schools.map((s) => ({ key: s.key, title: s.title })),
    ]}
    onpick={(key) => {
      if (!key) return;
      why = catalogue.schools.find((s) => s.key === key)?.why ?? "";
      bench.edit({ kind: "choose", field: "school", key });
    }}
  />
  <Fact label="Batches in the band" onclick={() => onworking("chances")}
    ><Qty kind="frac" value={evaluation.blend.chance_in_band} /></Fact
  >
  <Fact label="A kilo in the bowl" onclick={() => onworking("cost")}
    ><Qty kind="price_per_kg" value={Number(evaluation.cost.blend_price_per_kg)} /></Fact
  >
  {#if evaluation.names.length > 0}
    <Fact label="May be called" onclick={() => onworking("names")}>
      {evaluation.names.find((n) => n.allowed)?.name ?? "none of the names"}
    </Fact>
  {/if}
</div>
<p class="mt-2 text-[0.875rem] leading-snug quiet" role="status">
  {#if why}{why}{:else}Below the band of <Qty kind="frac" value={band[0]} high={band[1]} /> lie <Qty
      kind="frac"
      value={evaluation.blend.chance_below_band}
    /> of batches, above it <Qty kind="frac" value={evaluation.blend.chance_above_band} />.{/if}
</p>
