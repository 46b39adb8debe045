<!-- The heat asked the other way round; what comes afterwards; how hot it is without a thermometer. -->
<script lang="ts">
  import type { BrownWord } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";
  import AfterSection from "./AfterSection.svelte";
  import FirmForm from "./FirmForm.svelte";
  import type { HeatBench } from "./heat.svelte";
  import QuestionForm from "./QuestionForm.svelte";
  import SignsForm from "./SignsForm.svelte";

  let { bench, formula, evaluation, inside }: StepProps & { inside: HeatBench } = $props();
  const flat = $derived(["disc", "filled", "spread"].includes(evaluation.style.form));
  const round = $derived(["ball", "crumbled"].includes(evaluation.style.form));
  let crust = $state<BrownWord>("brown");
</script>

<div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-2">
  <section aria-label="Questions" class="flex flex-col gap-4">
    {#if !round}
      <QuestionForm
        {bench}
        {formula}
        kind="how-thick"
        label={flat ? "How thick, to be done in" : "How tall, to be done in"}
        start="4:00"
      />
    {/if}
    <QuestionForm
      {bench}
      {formula}
      kind="how-hot"
      label={`How hot, for a ${crust} crust in`}
      start="2:00"
      {crust}
    >
      {#snippet more()}
        <select
          aria-label="Crust"
          class="h-[2.625rem] cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2"
          bind:value={crust}
        >
          <option value="golden">golden</option><option value="brown">brown</option><option value="dark"
            >dark</option
          >
        </select>
      {/snippet}
    </QuestionForm>
    <QuestionForm
      {bench}
      {formula}
      kind="how-long"
      label="How long, at"
      start={amount({ kind: "temp_c", value: formula.heat.surface_temp_c }, units)}
      reads="temp_c"
    />
    <QuestionForm {bench} {formula} kind="floor-in-time" label="Floor met, if off after" start="4:00" />
    <QuestionForm {bench} {formula} kind="reach-floor" label="What would meet the floor?" />
    <QuestionForm {bench} {formula} kind="land-on-target" label="When to pull, if it rises as computed?" />
  </section>
  <div class="flex flex-col gap-6">
    <SignsForm {bench} {formula} {inside} />
    <FirmForm {formula} />
    <AfterSection {formula} />
  </div>
</div>
