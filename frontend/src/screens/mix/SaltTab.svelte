<!-- The salt ledger: what is wanted, what comes along, what is left to add; and where it goes. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";
  import type { StepProps } from "../step";
  import SaltLedger from "./SaltLedger.svelte";
  import SaltScale from "./SaltScale.svelte";

  let { bench, formula, evaluation, onworking }: StepProps = $props();
  const salt = $derived(evaluation.salt);
  const places = [
    {
      key: "surface",
      title: "On the surface",
      why: "At the last moment, rim too. Salt worked in early dissolves protein: a firm, sausage-like bite.",
    },
    {
      key: "mixed",
      title: "In the mix",
      why: "Balls and loaves always; burgers where a firmer bite with flavour all through is wanted.",
    },
    {
      key: "none",
      title: "None added",
      why: "For those who salt at the table, or whose cheese and bacon bring enough.",
    },
  ] as const;
</script>

<SaltScale {bench} {salt} />

<div class="mt-3 flex flex-wrap items-start gap-x-7 gap-y-4">
  <ValueField
    {bench}
    figure="salt"
    label="Salt in all, of the meat"
    kind="fine_frac"
    value={salt.salt_frac}
    hint="1.6 %, or what you add: 12 g, 2 tsp"
  />
  <Fact label="To add to the batch" onclick={() => onworking("salt")}
    ><Qty kind="mass_g" value={salt.batch_salt_g} /></Fact
  >
  <Fact label={`Teaspoons, ${salt.salt_name.toLowerCase()}`} onclick={() => onworking("salt")}
    ><Qty kind="number" value={salt.batch_salt_tsp} /></Fact
  >
  {#if salt.salt_place === "surface"}
    <Fact label="A piece"><Qty kind="mass_g" value={salt.piece_salt_g} /></Fact>
    <Fact label={salt.rim_salt_g > 0 ? "A side, and the rim" : "A side"}
      ><Qty kind="mass_g" value={salt.side_salt_g} />{#if salt.rim_salt_g > 0}, <Qty
          kind="mass_g"
          value={salt.rim_salt_g}
        />{/if}</Fact
    >
  {:else}
    <Fact label="Of the whole mix" onclick={() => onworking("salt")}
      ><Qty kind="fine_frac" value={salt.of_mix_frac} /></Fact
    >
  {/if}
  <Fact label="Sodium a guest" onclick={() => onworking("salt")}
    ><Qty kind="mass_mg" value={evaluation.served.sodium_mg} /></Fact
  >
</div>

<SaltLedger {salt} />

<div role="radiogroup" aria-label="Where the salt goes" class="mt-5 grid gap-3 sm:grid-cols-3">
  {#each places as place (place.key)}
    {@const chosen = formula.seasoning.salt_place === place.key}
    <button
      role="radio"
      aria-checked={chosen}
      class={[
        "flex cursor-pointer flex-col rounded-[0.25rem] border px-3 py-2.5 text-left",
        chosen ? "border-primary bg-paper ring-2 ring-primary" : "border-base-300 hover:bg-paper",
      ]}
      onclick={() => bench.edit({ kind: "choose", field: "salt_place", key: place.key })}
    >
      <span class="block font-[680]">{place.title}</span>
      <span class="block text-[0.8125rem] leading-snug quiet">{place.why}</span>
    </button>
  {/each}
</div>
<p class="mt-3 text-[0.8125rem] quiet">
  Spoons are of this kitchen’s salt, {salt.salt_name.toLowerCase()}: <Qty
    kind="mass_g"
    value={salt.g_per_tsp}
  /> a teaspoon. A flaky salt weighs half of a fine one. Which salt it is stands in the kitchen.
</p>
