<!-- The bowl: parts to a hundred of meat against a school's bands; the panade; and every line. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import type { StepProps } from "../step";
  import AddLine from "./AddLine.svelte";
  import LineTable from "./LineTable.svelte";
  import PanadeGauge from "./PanadeGauge.svelte";
  import PartsPicture from "./PartsPicture.svelte";

  let props: StepProps = $props();
  const { bench, formula, evaluation, catalogue, onworking } = $derived(props);
  const mix = $derived(evaluation.mix);
  const schools = $derived(catalogue.mix_schools.filter((s) => s.dishes.includes(formula.dish.dish)));
  let compared = $state("");
  // Another dish has other schools: then the nearest one is drawn again.
  const school = $derived(
    schools.find((s) => s.key === compared) ??
      schools.find((s) => s.key === (mix.resemblance.nearest || mix.resemblance.all[0]?.key)) ??
      schools[0],
  );
  const refusals = ["add-to-mix", "put-in", "take-out", "swap-ingredient", "hold-line", "mix_school"];
</script>

<div class="flex flex-wrap items-end gap-x-5 gap-y-3">
  <Fact label="Resembles" onclick={() => onworking("school")}>{mix.resemblance.title}</Fact>
  <PickField
    label="Bands drawn"
    width="13rem"
    value={school?.key ?? ""}
    options={schools.map((s) => ({ key: s.key, title: s.title }))}
    onpick={(key) => (compared = key)}
  />
  {#if school}
    <button class="act" onclick={() => bench.edit({ kind: "choose", field: "mix_school", key: school.key })}
      >Move the mix to it</button
    >
  {/if}
</div>
{#if school}
  <p class="mt-1.5 text-[0.8125rem] leading-snug quiet">{school.why}</p>
  <PartsPicture {bench} {evaluation} {school} />
{/if}
{#if mix.panade.state !== "none"}<PanadeGauge {bench} {evaluation} {onworking} />{/if}
<AddLine {bench} />
{#if bench.refusal && refusals.includes(bench.refusal.target) && bench.refusal.target !== "add-to-mix"}
  <p role="alert" class="mt-2 text-sm text-error">{bench.refusal.detail}</p>
{/if}
<LineTable {bench} {evaluation} {catalogue} />
