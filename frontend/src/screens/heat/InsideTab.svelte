<!-- What goes on inside the piece: a computed curve with its uncertainty, what was seen of it, and the floor. -->
<script lang="ts">
  import type { Amount } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import type { StepProps } from "../step";
  import CurvePicture from "./CurvePicture.svelte";
  import UncertaintyList from "./UncertaintyList.svelte";
  import FloorTable from "./FloorTable.svelte";
  import type { HeatBench } from "./heat.svelte";
  import SeenForm from "./SeenForm.svelte";
  import { span } from "./span";

  let { formula, evaluation, catalogue, inside }: StepProps & { inside: HeatBench } = $props();
  const heat = $derived(evaluation.heat);
  const curve = $derived(inside.curve);
  const sure = $derived(curve?.uncertainty != null);
  const shown = (kind: Amount["kind"], value: number) => amount({ kind, value }, units);
  const flat = $derived(curve?.form === "slab");
  const simmers = $derived(heat.stages.some((s) => s.kind === "simmer"));
  const clocked = $derived(curve?.uncertainty != null && curve.pull_s.high - curve.pull_s.low < 1);
</script>

<div class="mt-4" aria-busy={inside.busy}>
  {#if inside.problem}
    <p role="alert" class="text-error">{inside.problem}</p>
  {:else if !curve}
    <p class="quiet">Loading…</p>
  {:else}
    <div class={["flex flex-wrap gap-x-8 gap-y-3 transition-opacity", inside.busy && "opacity-50"]}>
      {#if curve.flip_s && curve.flip_s.usual > 0}
        <div data-flip>
          <Fact label={sure ? "Flip, look from" : "Flip, about"}
            >{sure ? span(curve.flip_s.low, curve.flip_s.high) : time(curve.flip_s.usual)}</Fact
          >
          {#if heat.practice.flip_s.high > 0}<span class="text-[0.8125rem] quiet"
              >usual practice {span(heat.practice.flip_s.low, heat.practice.flip_s.high)}</span
            >{/if}
        </div>
      {/if}
      <div data-there>
        <Fact
          label={!curve.reached
            ? "Core there"
            : clocked
              ? "Off, by the clock"
              : sure
                ? "Done, check from"
                : "Done, about"}
          >{#if !curve.reached}not by {time(curve.pull_s.usual)}{:else if sure}{span(
              curve.pull_s.low,
              curve.pull_s.high,
            )}{:else}{time(curve.pull_s.usual)}{/if}</Fact
        >
        <span class="text-[0.8125rem] quiet"
          >{simmers ? "cooked through; usual until tender" : "usual practice"}
          {span(heat.practice.on_heat_s.low, heat.practice.on_heat_s.high)}</span
        >
      </div>
      {#if curve.reached}
        <div>
          <Fact label="Off at, in the middle"><Qty kind="temp_c" value={curve.pull_core_c} /></Fact>
          <span class="text-[0.8125rem] quiet">wanted <Qty kind="temp_c" value={heat.target_c} /></span>
        </div>
        <div>
          <Fact label="Rises to"><Qty kind="temp_c" value={curve.peak_c} /></Fact>
          <span class="text-[0.8125rem] quiet">{curve.doneness}</span>
        </div>
      {/if}
      {#if curve.plate_low_c != null}
        <div>
          <Fact label="Surface falls to"><Qty kind="temp_c" value={curve.plate_low_c} /></Fact>
          {#if curve.plate_recovers_s}<span class="text-[0.8125rem] quiet"
              >back in {time(curve.plate_recovers_s)}</span
            >{/if}
        </div>
      {/if}
      <div>
        <Fact label="Left of the raw weight"><Qty kind="frac" value={curve.yield_frac} /></Fact>
        <span class="text-[0.8125rem] quiet"
          >computed; weighed by others <Qty
            kind="frac"
            value={curve.weighed_frac.low}
            high={curve.weighed_frac.high}
          /></span
        >
      </div>
      <div>
        <Fact label={flat ? "Crust, each side" : curve.form === "block" ? "Crust, below and top" : "Crust"}
          >{curve.form === "ball" ? curve.brown_words[0] : curve.brown_words.join(", ")}</Fact
        >
        <span class="text-[0.8125rem] quiet">only ranks</span>
      </div>
    </div>
    <CurvePicture {curve} {heat} bands={catalogue.doneness} held={inside.held} done={inside.done} />
    <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      {#if inside.held}
        <span class="text-[0.875rem]"
          ><span
            aria-hidden="true"
            class="mr-1 inline-block w-6 border-b-2 border-dashed border-[#6a4a8c] align-middle"
          ></span>held: {inside.held.name}, done at {time(inside.held.curve.pull_s.usual)}, rises to
          <Qty kind="temp_c" value={inside.held.curve.peak_c} /></span
        >
        <button class="act" onclick={() => (inside.held = null)}>Let it go</button>
      {:else}
        <button
          class="act"
          onclick={() =>
            inside.hold(
              `${shown("temp_c", formula.heat.surface_temp_c)}, ${shown("length_mm", evaluation.shape.thickness_mm)}`,
            )}>Hold this curve to compare</button
        >
      {/if}
    </div>
    {#each curve.remarks as remark (remark.key)}
      <div class="mt-3 max-w-[44rem] border-l-4 border-secondary pl-3">
        <p class="font-semibold"><Say text={remark.title} /></p>
        <p class="text-[0.875rem] leading-snug quiet"><Say text={remark.reason} /></p>
      </div>
    {/each}
    <div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 lg:grid-cols-2">
      <FloorTable {curve} />
      <div class="flex flex-col gap-6">
        <UncertaintyList {curve} done={inside.done} />
        <SeenForm {formula} {inside} probe={heat.probe} {flat} />
      </div>
    </div>
    <p class="mt-4 max-w-[52rem] text-[0.8125rem] leading-snug quiet">
      <Say text={curve.message} /> Accurate to about ±20–25 %.
      {#if !heat.probe}Nobody can probe a piece this thin: the cue decides.{/if}
      Colour and a cut mislead in mince. Local codes and licensed practice decide; Vianda shows the floor and never
      calls a dish safe.
    </p>
  {/if}
</div>
