<!-- Everything that goes with it: what it is for, grams a portion beside what is usual, and how far it goes. -->
<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { BesideThing, Role } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";

  let { bench, evaluation, catalogue }: StepProps = $props();
  const things = $derived(evaluation.beside.things);
  const rows = $derived(evaluation.served.balance);
  const offered = $derived(catalogue.pantry.filter((i) => !i.retired));
  const groups = $derived([
    { title: "Made in the house", things: offered.filter((i) => i.house) },
    { title: "Bought", things: offered.filter((i) => !i.house) },
  ]);
  let role = $state<Role>("burger-sauce");
  let wanted = $state("mayonnaise");
  const uid = $props.id();
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const type = (ingredient: string, what: "dose" | "made" | "coats", text: string) =>
    bench.edit({ kind: "type-beside", ingredient, what, text });
  /** Where the dose stands on a line that ends at twice what is usual. */
  const at = (thing: BesideThing, value: number) => `${Math.min(100, (50 * value) / thing.usual_g.usual)}%`;

  function add(event: SubmitEvent): void {
    event.preventDefault();
    bench.edit({ kind: "put-beside", role, ingredient: wanted });
  }
</script>

<form class="mt-5 flex flex-wrap items-end gap-3" onsubmit={add} aria-label="Put something beside it">
  <PickField label="As" value={role} options={catalogue.roles} onpick={(key) => (role = key as Role)} />
  <div class="min-w-0">
    <label for={uid} class="mb-0.5 block text-[0.8125rem] quiet">What</label>
    <select
      id={uid}
      class="h-[2.625rem] max-w-[min(100%,20rem)] cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 font-semibold"
      bind:value={wanted}
    >
      {#each groups as group (group.title)}
        {#if group.things.length > 0}
          <optgroup label={group.title}>
            {#each group.things as thing (thing.key)}<option value={thing.key}>{thing.name}</option>{/each}
          </optgroup>
        {/if}
      {/each}
    </select>
  </div>
  <button class={["act h-[2.625rem]", things.length === 0 && "act-main"]}>Put it beside</button>
</form>
{#if bench.refusal && ["put-beside", "type-beside", "take-beside"].includes(bench.refusal.target)}
  <p role="alert" class="mt-2 text-[0.875rem] text-error">{bench.refusal.detail}</p>
{/if}

{#if things.length === 0}
  <p class="mt-6 max-w-[38rem] text-[0.9375rem]">
    Nothing goes with it yet. A sauce, a glaze, pickles or onions count for the portion's energy, salt,
    allergens and cost as soon as they are here.
  </p>
{:else}
  <ul class="mt-4" aria-label="What goes with it">
    {#each things as thing (thing.ingredient)}
      <li class="border-t border-base-300 py-3" data-beside={thing.ingredient}>
        <div class="flex flex-wrap items-start gap-x-5 gap-y-2">
          <div class="min-w-44 flex-1">
            <h2 class="text-base leading-snug">{thing.name}</h2>
            <p class="text-[0.8125rem] quiet">
              {thing.role_title}{thing.house
                ? `, made in the house, keeps ${thing.keeps_days} days`
                : thing.raw
                  ? ", cooked beside the meat"
                  : ", bought"}
            </p>
          </div>
          <QuickField
            label="A portion"
            value={mass(thing.dose_g)}
            oncommit={(text) => type(thing.ingredient, "dose", text)}
          />
          <QuickField
            label="Made at once"
            value={mass(thing.made_g)}
            width="7rem"
            oncommit={(text) => type(thing.ingredient, "made", text)}
          />
          {#if thing.role === "glaze"}<QuickField
              label="Coats"
              value={String(thing.coats)}
              width="4rem"
              oncommit={(text) => type(thing.ingredient, "coats", text)}
            />{/if}
          <button
            class="mt-[1.375rem] act size-[2.625rem] p-0"
            onclick={() => bench.edit({ kind: "take-beside", ingredient: thing.ingredient })}
            ><Trash size={18} aria-hidden="true" /><span class="sr-only">Take {thing.name} away</span></button
          >
        </div>
        <div class="mt-2 grid max-w-[34rem] grid-cols-[1fr] gap-1">
          <span class="relative block h-4" aria-hidden="true">
            <span class="absolute inset-x-0 top-1/2 h-px bg-base-content"></span>
            <span
              class="absolute inset-y-0.5 bg-[#b9cfcb]"
              style:left={at(thing, thing.usual_g.low)}
              style:width={`calc(${at(thing, thing.usual_g.high)} - ${at(thing, thing.usual_g.low)})`}
            ></span>
            <span
              class="absolute inset-y-0 w-[3px] -translate-x-1/2 bg-base-content"
              style:left={at(thing, thing.dose_g)}
            ></span>
          </span>
          <p class="text-[0.8125rem] leading-snug">
            Usual <Qty kind="mass_g" value={thing.usual_g.low} high={thing.usual_g.high} /> a portion{#if thing.spread};
              on both faces it lies {thing.spread.thickness_mm.toFixed(1)} mm thick, {thing.spread.word}{/if}. {thing
              .batch.portions} portions{#if thing.batch.lacking_g > 0.5}, <span
                class="font-semibold text-warning"
                ><Qty kind="mass_g" value={thing.batch.lacking_g} /> short</span
              >{:else if thing.batch.left_g > 0.5}, <Qty kind="mass_g" value={thing.batch.left_g} /> left{/if}.
          </p>
          {#if thing.raw}
            <p class="text-[0.8125rem] leading-snug" data-raw>
              From <strong class="font-semibold"
                ><Qty kind="mass_g" value={thing.raw.raw_g.low} high={thing.raw.raw_g.high} />
                {thing.raw.raw_name}</strong
              >, {thing.raw.loads === 1 ? "one load" : `${thing.raw.loads} loads`} on
              <Qty kind="frac" value={thing.raw.surface_frac} /> of the surface, <Qty
                kind="minutes"
                value={thing.raw.minutes.low}
                high={thing.raw.minutes.high}
              />. <Say text={thing.raw.turn} />
            </p>
          {/if}
          {#if thing.glaze}
            <p class="text-[0.8125rem] leading-snug" data-glaze>
              {thing.glaze.area_dm2.toFixed(1)} dm² show: a coat takes
              <strong class="font-semibold"
                ><Qty kind="mass_g" value={thing.glaze.coat_g.low} high={thing.glaze.coat_g.high} /></strong
              >, {thing.glaze.coats} of them <Qty kind="mass_g" value={thing.glaze.coats_g} />. Sugar <Qty
                kind="per_hundred"
                value={thing.glaze.taste.sugar}
              /> catches from <Qty kind="temp_c" value={thing.glaze.catches_c} /> at the surface.
              {#if thing.glaze.reduced}The <Qty kind="mass_g" value={thing.glaze.rest_g} /> left, cooked to half,
                are <Qty kind="mass_g" value={thing.glaze.reduced_g} /> for the table with <Qty
                  kind="per_hundred"
                  value={thing.glaze.reduced.sugar}
                /> sugar.{/if}
            </p>
          {/if}
        </div>
      </li>
    {/each}
  </ul>
{/if}

{#if rows.length > 1}
  <section class="mt-6 border-t-2 border-base-content pt-3" aria-label="One portion by its parts">
    <h2 class="text-lg">One portion by its parts</h2>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="relative mt-1 overflow-x-auto" tabindex="0" role="region" aria-label="Parts table">
      <table class="w-full min-w-[34rem] text-[0.9375rem]">
        <thead>
          <tr class="text-[0.8125rem] quiet">
            <th class="py-1 text-left font-normal">Part</th>
            {#each ["Mass", "Energy", "Protein", "Fat", "Sugars", "Salt", "Acid"] as head (head)}<th
                class="pl-3 text-right font-normal">{head}</th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as row, n (n)}
            <tr class="border-t border-base-300" data-part={row.kind}>
              <th scope="row" class="py-1 text-left font-semibold">{row.name}</th>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.mass_g} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="energy_kcal" value={row.energy_kcal} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.protein_g} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.fat_g} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.sugars_g} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.salt_g} /></td>
              <td class="pl-3 text-right numeral"><Qty kind="mass_g" value={row.acid_g} /></td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="mt-1 text-[0.8125rem] quiet">
      As laid on the heat: what drips off is still in it. Acid as acetic.
    </p>
  </section>
{/if}
