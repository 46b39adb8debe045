<!-- The whole raw mix, the portion as served with what comes in at the heat, allergens and limits, how it will hold. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { StepProps } from "../step";
  import IndexScale from "./IndexScale.svelte";
  import LimitBoxes from "./LimitBoxes.svelte";
  import MakeUp from "./MakeUp.svelte";

  let { bench, formula, evaluation, catalogue, onworking }: StepProps = $props();
  const mix = $derived(evaluation.mix);
  const whole = $derived(mix.whole);
  const served = $derived(evaluation.served);
</script>

<MakeUp {whole} onworking={() => onworking("whole")} />

<div class="mt-4 flex flex-wrap gap-x-7 gap-y-3">
  <Fact label="Lean to fat, meat" onclick={() => onworking("lean_to_fat")}
    ><Qty kind="lean_to_fat" value={evaluation.blend.fat_frac} /></Fact
  >
  <Fact label="Lean to fat, whole mix" onclick={() => onworking("whole")}
    ><Qty kind="lean_to_fat" value={whole.fat_frac} /></Fact
  >
  <Fact label="Binder to 100 of meat" onclick={() => onworking("bind")}
    ><Qty kind="per_hundred" value={whole.binder_frac} /></Fact
  >
</div>

<section aria-label="A portion as served" class="mt-5 border-t border-base-300 pt-4">
  <h2 class="text-base">A portion as served</h2>
  <div class="mt-2 flex flex-wrap gap-x-7 gap-y-3">
    <Fact label="Energy" onclick={() => onworking("portion")}
      ><Qty kind="energy_kcal" value={served.energy_kcal} /></Fact
    >
    <Fact label="Protein"><Qty kind="mass_g" value={served.protein_g} /></Fact>
    <Fact label="Fat"><Qty kind="mass_g" value={served.fat_g} /></Fact>
    <Fact label="Carbohydrate"><Qty kind="mass_g" value={served.carbohydrate_g} /></Fact>
    <Fact label="of it sugars"><Qty kind="mass_g" value={served.sugars_g} /></Fact>
    <Fact label="Salt" onclick={() => onworking("salt")}><Qty kind="mass_g" value={served.salt_g} /></Fact>
  </div>
  <p class="mt-2 max-w-[44rem] text-[0.875rem] leading-snug quiet">
    {#if served.things.length === 0}The mix alone: nothing comes in at the heat, and there is no bread.
    {:else}The mix, and for all guests:
      {#each served.things as thing, at (thing.kind)}{at > 0 ? "; " : ""}<span class="text-base-content"
          >{thing.name}</span
        >, <Qty kind="mass_g" value={thing.eaten_g} /> eaten{/each}.
    {/if}
    {#if served.simmered}The sauce that the pieces lie in is not counted yet.{/if}
    Before the heat takes its share.
  </p>
</section>

<div class="mt-5 grid gap-x-8 gap-y-5 border-t border-base-300 pt-4 md:grid-cols-2">
  <section aria-label="Bind and looseness">
    <h2 class="text-base">How it will hold and eat</h2>
    <IndexScale
      title="Bind"
      index={mix.bind}
      ends={["falls apart", "sausage"]}
      onworking={() => onworking("bind")}
    />
    <IndexScale
      title="Looseness"
      index={mix.looseness}
      ends={["rubber", "crumbs"]}
      onworking={() => onworking("looseness")}
    />
    <p class="mt-1 text-[0.75rem] quiet">
      Sums of named rules, to compare two mixes by; not a measurement. Plain meat stands at 40.
    </p>
  </section>
  <section aria-label="Allergens and limits">
    <h2 class="text-base">Allergens</h2>
    {#if served.allergens.length === 0}
      <p class="mt-1 text-[0.9375rem] quiet">None of the fourteen is declared on anything that is eaten.</p>
    {:else}
      <ul class="mt-1 text-[0.9375rem]">
        {#each served.allergens as allergen (allergen.name)}
          <li class="border-b border-base-300 py-1">
            <span class="font-semibold">{allergen.name}</span>
            <span class="quiet">from {allergen.sources.join(", ").toLowerCase()}</span>
          </li>
        {/each}
      </ul>
    {/if}
    <p class="mt-1 text-[0.75rem] quiet">As written down for each thing; the label decides.</p>
    <LimitBoxes {bench} {formula} {catalogue} />
  </section>
</div>
