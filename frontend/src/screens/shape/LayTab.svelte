<!-- How pieces lie on the surface, wave by wave, and how they are kept until then. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import SurfacePicture from "../../lib/ui/SurfacePicture.svelte";
  import type { SheetProps } from "../step";

  let { bench, formula, evaluation, kitchen, onworking, sheets }: SheetProps = $props();
  const stove = $derived(sheets.stove);
  const form = $derived(evaluation.shape.form);
  const flat = $derived(["disc", "filled", "spread"].includes(form));
  const choose = (field: "edges" | "papers" | "firmness" | "surface", key: string) =>
    bench.edit({ kind: "choose", field, key });
</script>

<p class="quiet">
  Drawn at the raw size{#if form !== "crumbled"}, with <Qty
      kind="length_mm"
      value={evaluation.style.gap_mm}
    /> between pieces{/if}. What handling needs is in the counsel.
</p>
<div class="mt-3 flex flex-wrap items-start gap-x-4 gap-y-3.5">
  <PickField
    label={evaluation.style.baked ? "Oven" : "Surface"}
    value={formula.heat.surface}
    options={kitchen.surfaces.map((s) => ({ key: s.key, title: s.name }))}
    onpick={(key) => choose("surface", key)}
    refusal={bench.refusal?.target === "surface" ? bench.refusal.detail : null}
    width={flat ? "12rem" : "15rem"}
  />
  {#if form !== "crumbled"}
    <Segments
      label="Before the heat"
      options={[
        { key: "soft", title: "Soft" },
        { key: "chilled", title: "Chilled" },
        { key: "frozen", title: "Frozen firm" },
      ]}
      value={formula.shape.firmness ?? "chilled"}
      onpick={(key) => choose("firmness", key)}
    />
  {/if}
  {#if flat}
    <Segments
      label="Edges"
      options={[
        { key: "rounded", title: "Rounded" },
        { key: "ragged", title: "Ragged" },
      ]}
      value={formula.shape.edges ?? "rounded"}
      onpick={(key) => choose("edges", key)}
    />
    <Segments
      label="Papers between"
      options={[
        { key: "yes", title: "Papers" },
        { key: "no", title: "None" },
      ]}
      value={formula.shape.papers ? "yes" : "no"}
      onpick={(key) => choose("papers", key)}
    />
  {/if}
</div>
<div class="mt-4">
  <SurfacePicture
    {stove}
    shape={evaluation.shape}
    name={kitchen.surfaces.find((s) => s.key === formula.heat.surface)?.name ?? ""}
  />
</div>
<div class="mt-4 flex flex-wrap gap-x-8 gap-y-3">
  {#if stove.load_mass_g}
    <Fact label="Meat at once" onclick={() => onworking("waves")}
      ><Qty kind="mass_g" value={stove.load_mass_g} /></Fact
    >
  {:else}
    <Fact label="At once" onclick={() => onworking("waves")}><Qty kind="count" value={stove.at_once} /></Fact>
  {/if}
  {#if form !== "crumbled" && stove.in_squares > 0 && stove.in_squares !== stove.at_once}
    <Fact label="In plain rows and columns"><Qty kind="count" value={stove.in_squares} /></Fact>
  {/if}
  <Fact label={stove.load_mass_g ? "Browning loads" : "Waves"} onclick={() => onworking("waves")}
    ><Qty kind="count" value={stove.waves} /></Fact
  >
  {#if stove.first_wave < stove.at_once}<Fact
      label="First wave, with what lies beside it"
      onclick={() => onworking("waves")}><Qty kind="count" value={stove.first_wave} /></Fact
    >{/if}
  {#if stove.waves > 1 && !stove.load_mass_g}<Fact label="Last wave"
      ><Qty kind="count" value={stove.last_wave} /></Fact
    >{/if}
</div>
