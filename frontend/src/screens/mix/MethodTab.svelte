<!-- How it is made: the order, how cold each part is, when to stop; and the fried teaspoon. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { SheetProps } from "../step";

  let { bench, formula, evaluation, onworking, sheets }: SheetProps = $props();
  const protocol = $derived(sheets.protocol);
  const mix = $derived(formula.mix);
  const bound = $derived(formula.dish.dish === "meatball" || formula.dish.dish === "meatloaf");
  const chill = $derived(evaluation.mix.chill_to_cold_min);
  const any = $derived(evaluation.mix.lines.length > 0);
  const ways = [
    { key: "hand", title: "Cold hands" },
    { key: "spoon", title: "Spoon" },
    { key: "processor", title: "Processor" },
  ] as const;
</script>

{#if mix}
  <div class="flex flex-wrap items-start gap-x-5 gap-y-4">
    <ValueField
      {bench}
      figure="meat_temp"
      label="Meat, measured"
      kind="temp_c"
      value={mix.meat_temp_c ?? 3}
      width="7.5rem"
    />
    {#if evaluation.mix.panade.state !== "none"}
      <ValueField {bench} figure="soak" label="Soak" kind="minutes" value={mix.soak_min ?? 15} width="8rem" />
    {/if}
    {#if any && formula.dish.dish !== "sauce"}
      <Segments
        label="Worked by"
        options={ways}
        value={mix.work ?? "hand"}
        onpick={(key) => bench.edit({ kind: "choose", field: "work", key })}
      />
      <ValueField
        {bench}
        figure="work_time"
        label="For"
        kind="time_s"
        value={mix.work_s ?? 90}
        width="7.5rem"
      />
    {/if}
    {#if bound}
      <ValueField
        {bench}
        figure="chill"
        label="Chill before shaping"
        kind="minutes"
        value={mix.chill_min ?? 45}
        width="8.5rem"
      />
    {/if}
    {#if any}
      <Fact label="The mix comes out at" onclick={() => onworking("mix_temp")}
        ><Qty kind="temp_c" value={evaluation.mix.mix_temp_c} /></Fact
      >
      {#if chill.high > 0}
        <Fact label="In the fridge to 4 °C" onclick={() => onworking("mix_temp")}
          ><Qty kind="minutes" value={chill.low} high={chill.high} /></Fact
        >
      {/if}
    {/if}
  </div>
{/if}

<ol class="mt-4 border-t border-base-300">
  {#each protocol.steps as step, at (at)}
    <li class="grid grid-cols-[2rem_minmax(0,1fr)_auto] gap-x-3 border-b border-base-300 py-2">
      <span class="pt-px text-[1.0625rem] numeral quiet">{at + 1}</span>
      <span>
        <span class="block font-semibold">{step.title}</span>
        <span class="block text-[0.9375rem] leading-snug"><Say text={step.text} /></span>
      </span>
      {#if step.below_c != null}
        <span class="self-center text-[0.875rem] numeral whitespace-nowrap text-primary"
          >below <Qty kind="temp_c" value={step.below_c} /></span
        >
      {/if}
    </li>
  {/each}
</ol>

{#if any && formula.dish.dish !== "sauce"}
  <section aria-label="Fried teaspoon" class="mt-4">
    <h2 class="text-base">What the teaspoon says</h2>
    <ul>
      {#each sheets.corrections as fix (fix.verdict)}
        <li
          class="grid items-center gap-x-4 gap-y-1 border-b border-base-300 py-2 sm:grid-cols-[7.5rem_minmax(0,1fr)_auto]"
        >
          <span class="font-semibold">{fix.title}</span>
          <span class="text-[0.9375rem] leading-snug"><Say text={fix.text} /></span>
          <button class="act min-h-9 text-[0.875rem]" onclick={() => bench.edit(fix.edit)}
            >Next time: <Say text={fix.next_time} /></button
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
