<!-- The heat asked the other way round; what comes afterwards; how hot it is without a thermometer. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { BrownWord, HeatAnswer } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";
  import AfterSection from "./AfterSection.svelte";
  import AskSentence from "./AskSentence.svelte";
  import CurveLines from "./CurveLines.svelte";
  import FirmForm from "./FirmForm.svelte";
  import type { HeatBench } from "./heat.svelte";
  import SignsForm from "./SignsForm.svelte";

  let { bench, formula, evaluation, catalogue, inside }: StepProps & { inside: HeatBench } = $props();
  const flat = $derived(["disc", "filled", "spread"].includes(evaluation.style.form));
  const round = $derived(["ball", "crumbled"].includes(evaluation.style.form));
  let crust = $state<BrownWord>("brown");

  // Answers that are moments of this very cook stand on its curve.
  let off = $state<number | null>(null);
  let met = $state<number | null>(null);
  let landed = $state<number | null>(null);
  let width = $state(720);
  const curve = $derived(inside.curve);
  const end = $derived(Math.max(curve?.times_s.at(-1) ?? 1, off ?? 0, met ?? 0, landed ?? 0));
  const left = 58;
  const x = $derived(scaleLinear([0, end], [left, Math.max(left + 60, width - (width > 560 ? 78 : 12))]));
  const asked = $derived(
    [
      { at_s: off, name: "off as asked" },
      { at_s: landed, name: "off, to land on it" },
      { at_s: met, name: "meets the floor" },
    ].filter((one): one is { at_s: number; name: string } => one.at_s !== null),
  );
  const value = (answer: HeatAnswer | null) => answer?.value ?? null;
  const said = $derived(asked.map((one) => `${one.name} ${time(one.at_s)}`).join(", "));
</script>

<div class="mt-2" bind:clientWidth={width}>
  <ul aria-label="Questions" class="border-t border-base-300">
    {#if !round}
      <AskSentence
        {bench}
        {formula}
        kind="how-thick"
        label="Time to be done in"
        before="Done in"
        start="4:00"
        between={flat ? "it may be up to" : "it may stand up to"}
        after={flat ? " thick, raw." : " tall, raw."}
        answers="length_mm"
      />
    {/if}
    <AskSentence
      {bench}
      {formula}
      kind="how-hot"
      label="Time for the crust"
      before="A"
      start="2:00"
      between="needs about"
      after=". Browning only ranks."
      answers="temp_c"
      {crust}
    >
      {#snippet choice()}<select
          aria-label="Crust"
          class="mx-0.5 h-11 cursor-pointer rounded-t-[0.25rem] border-0 border-b-2 border-primary bg-base-200 px-1.5 font-semibold"
          bind:value={crust}
        >
          <option value="golden">golden</option><option value="brown">brown</option><option value="dark"
            >dark</option
          >
        </select>
        crust in{/snippet}
    </AskSentence>
    <AskSentence
      {bench}
      {formula}
      kind="how-long"
      label="Surface or oven"
      before="At"
      start={amount({ kind: "temp_c", value: formula.heat.surface_temp_c }, units)}
      reads="temp_c"
      between="the core is as wanted after"
      after="."
      answers="time_s"
    />
    <AskSentence
      {bench}
      {formula}
      kind="floor-in-time"
      label="Time after which it is off"
      before="Is the floor met, off after"
      start="4:00"
      onanswer={(answer, at) => (off = answer ? at : null)}
    />
    <AskSentence
      {bench}
      {formula}
      kind="reach-floor"
      label="What would meet the floor"
      before=""
      onanswer={(answer) => (met = value(answer))}
    />
    <AskSentence
      {bench}
      {formula}
      kind="land-on-target"
      label="When to take it off"
      before=""
      onanswer={(answer) => (landed = value(answer))}
    />
  </ul>
  {#if curve}
    <figure class="mt-4" aria-label={`Core over time, with the answers: ${said}`}>
      <CurveLines
        {curve}
        heat={evaluation.heat}
        bands={catalogue.doneness}
        held={null}
        done={1}
        {width}
        {left}
        {x}
        {end}
        {asked}
      />
    </figure>
  {/if}
  <div class="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-2">
    <AfterSection {formula} />
    <div class="flex flex-col gap-6">
      <SignsForm {bench} {formula} {inside} />
      <FirmForm {formula} />
    </div>
  </div>
</div>
