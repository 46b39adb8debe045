<!-- How it is ground on this kitchen's tools, how long it keeps, and the way to the butcher's slip. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";

  let { bench, formula, evaluation, kitchen, onworking }: StepProps = $props();
  const grind = $derived(evaluation.grind);
  const keeps = [
    ["fresh", "Used fresh"],
    ["made-ahead", "Made ahead"],
    ["frozen", "Frozen"],
  ] as const;
</script>

<div class="flex flex-wrap items-end gap-x-5 gap-y-3">
  <PickField
    label="Ground with"
    value={formula.grind?.tool ?? ""}
    width="14.5rem"
    options={[
      { key: "", title: "What suits best" },
      ...(kitchen.grinders ?? []).map((g) => ({ key: g.key, title: g.name })),
    ]}
    onpick={(key) => bench.edit({ kind: "choose", field: "grind_tool", key })}
  />
  <div role="radiogroup" aria-label="When it is used" class="flex flex-col">
    <span class="mb-0.5 text-[0.8125rem] quiet">When it is used</span>
    <div class="flex overflow-hidden rounded-[0.25rem] border border-[#8b8f8a]">
      {#each keeps as [key, title] (key)}
        {@const chosen = (formula.grind?.keep ?? "fresh") === key}
        <button
          role="radio"
          aria-checked={chosen}
          class={[
            "h-10 cursor-pointer px-2.5 font-semibold",
            chosen ? "bg-primary text-primary-content" : "bg-paper hover:bg-base-200",
          ]}
          onclick={() => !chosen && bench.edit({ kind: "choose", field: "keep", key })}>{title}</button
        >
      {/each}
    </div>
  </div>
</div>

<div class="mt-5 flex flex-wrap gap-x-8 gap-y-3">
  {#if grind.plate_mm > 0}
    <Fact label="Plate" onclick={() => onworking("grind")}
      ><Qty kind="length_mm" value={grind.plate_mm} /></Fact
    >
    <Fact label="Passes">{grind.passes === 2 ? "twice" : "once"}</Fact>
  {/if}
  {#if grind.loads > 0}
    <Fact label="Loads" onclick={() => onworking("grind")}>{grind.loads}</Fact>
    <Fact label="At it for about"><Qty kind="time_s" value={grind.minutes * 60} /></Fact>
    <Fact label="Stays in the machine" onclick={() => onworking("grind")}
      ><Qty kind="fine_frac" value={grind.loss_frac} /></Fact
    >
  {/if}
  <Fact label="Sinewy meat"><Qty kind="frac" value={grind.sinewy_share_frac} /></Fact>
</div>

<div class="mt-5 grid gap-x-8 gap-y-5 md:grid-cols-[1.35fr_1fr]">
  <section aria-label="Steps of grinding">
    <h2 class="text-base">In this order</h2>
    <ol class="mt-1.5 list-decimal space-y-1.5 pl-6 marker:font-semibold marker:text-primary">
      {#each grind.steps as step, at (at)}<li class="leading-snug"><Say text={step} /></li>{/each}
    </ol>
  </section>
  <section aria-label="Keeping">
    <h2 class="text-base">Keeping, and what it costs</h2>
    <ul class="mt-1.5 space-y-1.5">
      {#each grind.keeping as line, at (at)}<li
          class="border-l-2 border-base-300 pl-3 text-[0.875rem] leading-snug"
        >
          <Say text={line} />
        </li>{/each}
    </ul>
    <h2 class="mt-5 text-base">Let the butcher do it</h2>
    <div class="mt-1.5 flex flex-wrap items-end gap-4">
      <ValueField
        {bench}
        figure="services_per_week"
        label="Services a week"
        kind="count"
        value={evaluation.slip.services_per_week}
        width="7rem"
      />
      <a class="act" href={`/slip/${bench.id}`}>Butcher slip</a>
    </div>
  </section>
</div>
