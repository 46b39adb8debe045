<!-- How it is ground on this kitchen's tools, how long it keeps, and the way to the butcher's slip. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";

  let { bench, formula, evaluation, kitchen, onworking }: StepProps = $props();
  const grind = $derived(evaluation.grind);
  const keeps = [
    { key: "fresh", title: "Used fresh" },
    { key: "made-ahead", title: "Made ahead" },
    { key: "frozen", title: "Frozen" },
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
  <Segments
    label="When it is used"
    options={keeps}
    value={formula.grind?.keep ?? "fresh"}
    onpick={(key) => bench.edit({ kind: "choose", field: "keep", key })}
  />
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
        value={formula.grind?.services_per_week ?? 1}
        width="7rem"
      />
      <a class="act" href={`/slip/${bench.id}`}>Butcher slip</a>
    </div>
  </section>
</div>
