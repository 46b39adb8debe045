<!-- The sizes of a piece that can be set, by its form: a wanted raw or cooked size, what it is shaped in, its packing. -->
<script lang="ts">
  import PickField from "../../lib/ui/PickField.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";

  let { bench, formula, evaluation, kitchen }: StepProps = $props();
  const shape = $derived(evaluation.shape);
  const form = $derived(shape.form);
  const flat = $derived(["disc", "filled", "spread"].includes(form));
  const block = $derived(["loaf", "tin", "tray"].includes(form));
  const moulds = $derived((kitchen.moulds ?? []).filter((w) => evaluation.style.moulds.includes(w.kind)));
  const none = $derived(
    { tin: "No tin: by its size", tray: "No tray: by its size", ball: "By hand", crumbled: "" }[
      form as "tin"
    ] ?? "By hand",
  );
  const wareLabel = $derived(
    { tin: "Tin", tray: "Tray", ball: "Scoop", disc: "Ring or scoop", filled: "Ring" }[form as "tin"] ?? "",
  );
  const refused = (target: string) => (bench.refusal?.target === target ? bench.refusal.detail : null);
  // A ring, or the bread that meat is spread on to its edge, decides how wide it is.
  const fixed = $derived(
    form === "spread" || moulds.some((w) => w.key === shape.mould_key && w.kind === "ring"),
  );
  const packings = [
    { key: "loose", title: "Loose" },
    { key: "light", title: "Light" },
    { key: "firm", title: "Firm" },
  ] as const;
</script>

<div class="flex flex-wrap items-start gap-x-4 gap-y-3.5">
  <ValueField
    {bench}
    figure="piece_mass"
    label={form === "crumbled" ? "A portion" : "A raw piece"}
    kind="mass_g"
    value={formula.shape.portioning === "by_piece"
      ? formula.shape.piece_mass_g
      : evaluation.portions.piece_mass_g}
  />
  {#if flat}
    <ValueField
      {bench}
      figure="thickness"
      label="Thickness, raw"
      kind="length_mm"
      value={shape.thickness_mm}
      width="7.75rem"
    />
  {/if}
  {#if (flat && !fixed) || form === "ball"}
    <ValueField
      {bench}
      figure="diameter"
      label="Raw diameter"
      kind="length_mm"
      value={shape.raw_diameter_mm}
      width="7.75rem"
    />
    <ValueField
      {bench}
      figure="cooked_diameter"
      label="Cooked diameter"
      kind="length_mm"
      value={shape.cooked_diameter_mm.usual}
      width="7.75rem"
    />
  {/if}
  {#if block}
    {#if !shape.vessel}
      <ValueField
        {bench}
        figure="length"
        label="Length"
        kind="length_mm"
        value={shape.length_mm}
        width="7.75rem"
      />
      <ValueField
        {bench}
        figure="width"
        label="Width"
        kind="length_mm"
        value={shape.width_mm}
        width="7.75rem"
      />
    {/if}
    <ValueField
      {bench}
      figure="thickness"
      label={shape.vessel ? "Filled to" : "Height, raw"}
      kind="length_mm"
      value={shape.thickness_mm}
      width="7.75rem"
    />
  {/if}
  {#if form === "crumbled"}
    <ValueField
      {bench}
      figure="thickness"
      label="A lump"
      kind="length_mm"
      value={shape.thickness_mm}
      width="7.75rem"
    />
  {/if}
  <ValueField
    {bench}
    figure="cooked_mass"
    label="Cooked weight"
    kind="mass_g"
    value={shape.cooked_mass_g.usual}
    width="7.75rem"
  />
  {#if form === "filled"}
    <ValueField
      {bench}
      figure="filling"
      label="Filling"
      kind="frac"
      value={shape.filling?.share_frac ?? 0}
      width="7.25rem"
    />
    <ValueField
      {bench}
      figure="rim"
      label="Rim of meat"
      kind="length_mm"
      value={formula.shape.rim_mm ?? 12}
      width="7.75rem"
    />
  {/if}
</div>
<div class="mt-3 flex flex-wrap items-start gap-x-4 gap-y-3.5">
  {#if flat}
    <PickField
      label={form === "spread" ? "Spread on" : "Bread"}
      value={formula.shape.bun}
      options={kitchen.buns.map((b) => ({ key: b.key, title: b.name }))}
      onpick={(key) => bench.edit({ kind: "choose", field: "bun", key })}
      refusal={refused("bun")}
      width="14rem"
    />
  {/if}
  {#if moulds.length > 0}
    <PickField
      label={wareLabel}
      value={formula.shape.mould ?? ""}
      options={[{ key: "", title: none }, ...moulds.map((w) => ({ key: w.key, title: w.name }))]}
      onpick={(key) => bench.edit({ kind: "choose", field: "mould", key })}
      refusal={refused("mould")}
      width="14rem"
    />
  {/if}
  {#if form === "loaf"}
    <Segments
      label="Ends"
      options={[
        { key: "round", title: "Round" },
        { key: "blunt", title: "Blunt" },
        { key: "square", title: "Square" },
      ]}
      value={formula.shape.ends ?? "blunt"}
      onpick={(key) => bench.edit({ kind: "choose", field: "ends", key })}
    />
  {/if}
  {#if form !== "crumbled"}
    <Segments
      label="Packed"
      options={packings}
      value={shape.packing}
      onpick={(key) => bench.edit({ kind: "choose", field: "packing", key })}
    />
  {/if}
</div>
