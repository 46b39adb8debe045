<!-- Step 3: salt by mass of the meat, on a scale with the old rule's band. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import SaltScale from "./SaltScale.svelte";

  let { bench, formula, evaluation, onworking }: StepProps = $props();
  const places = [
    {
      key: "surface",
      title: "On the surface",
      why: "At the last moment, rim too. Salt worked in early dissolves protein: a firm, sausage-like bite.",
    },
    {
      key: "none",
      title: "No salt",
      why: "For those who salt at the table, or whose cheese and bacon bring enough.",
    },
  ] as const;
</script>

<StepHead
  title="Mix"
  line="Nothing goes into the meat of these burgers; salt is reckoned by mass of the raw meat."
/>

<SaltScale {bench} salt={evaluation.salt} />

<div class="mt-5 flex flex-wrap items-start gap-x-8 gap-y-4">
  <ValueField
    {bench}
    figure="salt"
    label="Salt, of the meat"
    kind="fine_frac"
    value={evaluation.salt.salt_frac}
    hint="1.1 %, 37 g or 2 tsp"
  />
  <Fact label="For the batch" onclick={() => onworking("salt")}
    ><Qty kind="mass_g" value={evaluation.salt.batch_salt_g} /></Fact
  >
  <Fact label="Teaspoons, fine salt" onclick={() => onworking("salt")}
    ><Qty kind="number" value={evaluation.salt.batch_salt_tsp} /></Fact
  >
  <Fact label="A piece"><Qty kind="mass_g" value={evaluation.salt.piece_salt_g} /></Fact>
  <Fact label="A side"><Qty kind="mass_g" value={evaluation.salt.side_salt_g} /></Fact>
</div>

<div
  role="radiogroup"
  aria-label="Where the salt goes"
  class="mt-5 grid gap-3 border-t border-base-300 pt-4 sm:grid-cols-2"
>
  {#each places as place (place.key)}
    {@const chosen = formula.seasoning.salt_place === place.key}
    <button
      role="radio"
      aria-checked={chosen}
      class={[
        "cursor-pointer rounded-[0.25rem] border px-3 py-2.5 text-left",
        chosen ? "border-primary bg-paper ring-2 ring-primary" : "border-base-300 hover:bg-paper",
      ]}
      onclick={() => bench.edit({ kind: "choose", field: "salt_place", key: place.key })}
    >
      <span class="block font-[680]">{place.title}</span>
      <span class="block text-[0.875rem] leading-snug quiet">{place.why}</span>
    </button>
  {/each}
</div>
<p class="mt-3 text-[0.8125rem] quiet">
  A teaspoon of a flaky salt weighs about half of one of fine salt: weigh it, or know which one you hold.
</p>
