<!-- A sauce tasted: its lines in grams, its tastes against a school, and words that propose the smallest change. -->
<script lang="ts">
  import { onDestroy, onMount } from "svelte";
  import { api, type Handle, type PantryThing, type SauceSchool } from "../../lib/api/client";
  import { freshKey } from "../../lib/itemKey";
  import { Told } from "../../lib/told.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";
  import { TasteBench } from "./taste.svelte";
  import Proposal from "./Proposal.svelte";
  import SauceLines from "./SauceLines.svelte";
  import TasteMap from "./TasteMap.svelte";

  let { bench, evaluation, catalogue }: StepProps = $props();
  const tasting = new TasteBench();
  let schools = $state.raw<SauceSchool[]>([]);
  let pantry = $state.raw<PantryThing[]>([]);
  const told = new Told();
  let name = $state("");
  let saved = $state("");
  /** Rounds that stand in the method already. */
  let written = 0;
  /** The sauce of the pantry that lies here, to write it back. */
  let from = $state.raw<PantryThing | null>(null);
  const handles: { key: Handle; title: string }[] = [
    { key: "sweeter", title: "Sweeter" },
    { key: "sharper", title: "Sharper" },
    { key: "saltier", title: "Saltier" },
    { key: "hotter", title: "Hotter" },
    { key: "richer", title: "Richer" },
    { key: "looser", title: "Looser" },
    { key: "thicker", title: "Thicker" },
  ];
  const nameOf = (key: string) => catalogue.pantry.find((i) => i.key === key)?.name ?? key;
  const offered = $derived(catalogue.pantry.filter((i) => !i.retired && i.key !== from?.ingredient.key));
  const sauces = $derived(pantry.filter((t) => t.ingredient.house && !t.ingredient.retired));
  const sources = $derived([
    ...sauces.map((t) => ({ key: `house:${t.ingredient.key}`, title: `${t.ingredient.name} (house)` })),
    ...schools.map((s) => ({ key: `school:${s.key}`, title: `${s.title}, as its school starts` })),
  ]);
  let source = $state("");

  function begin(key: string): void {
    source = key;
    saved = "";
    written = 0;
    const [kind, id] = key.split(":");
    if (kind === "house") {
      from = sauces.find((t) => t.ingredient.key === id) ?? null;
      const house = from?.ingredient.house;
      if (!house) return;
      name = from?.ingredient.name ?? "";
      const beside = evaluation.beside.things.find((t) => t.ingredient === id);
      tasting.begin([...house.lines], {
        role: beside?.role ?? "burger-sauce",
        left_g: house.yield_g,
      });
    } else {
      const school = schools.find((s) => s.key === id);
      from = null;
      name = school?.title ?? "";
      if (school) tasting.start(school);
    }
  }

  // Once: what is nudged here must not be put back when the formula changes beside it.
  onMount(() => {
    void told.run(async () => {
      const [found, room] = await Promise.all([api.sauceSchools(), api.pantry()]);
      schools = found;
      pantry = room.ingredients;
      const here = evaluation.beside.things.find((t) => t.house);
      begin(here ? `house:${here.ingredient}` : `school:${found[0]?.key}`);
    });
  });
  onDestroy(() => tasting.close());

  /** Write it to the pantry, and put it beside the formula when it is new. */
  async function keep(): Promise<void> {
    await told.run(async () => {
      const key =
        from?.ingredient.key ??
        freshKey(
          name,
          pantry.map((t) => t.ingredient.key),
          "sauce",
        );
      const base = from?.ingredient ?? {
        key,
        name: name.trim() || "Sauce",
        group: "sauce" as const,
        composition: {
          water_g_per_100g: 0,
          protein_g_per_100g: 0,
          fat_g_per_100g: 0,
          carbohydrate_g_per_100g: 0,
          ash_g_per_100g: 0,
          sodium_mg_per_100g: 0,
          sugars_g_per_100g: 0,
        },
        composition_note: "made in the house",
        g_per_cup: 240,
        volume_source: "the cook's own",
        pieces: [],
        allergens: [],
        temp_c: 4,
        price_per_kg: "0",
        aliases: [],
        remark: "",
        retired: false,
      };
      const house = {
        lines: tasting.lines,
        yield_g: tasting.taste && tasting.taste.left_frac < 1 ? tasting.taste.left_g : 0,
        keeps_days: from?.ingredient.house?.keeps_days ?? 3,
        method: [from?.ingredient.house?.method, ...tasting.rounds.slice(written)]
          .filter(Boolean)
          .join("\n")
          .slice(0, 1000),
        acid: from?.ingredient.house?.acid ?? false,
      };
      await api.saveIngredient({ ...base, name: name.trim() || base.name, house }, from?.revision ?? 0);
      pantry = (await api.pantry()).ingredients;
      from = pantry.find((t) => t.ingredient.key === key) ?? null;
      source = `house:${key}`;
      written = tasting.rounds.length;
      bench.edit({ kind: "put-beside", role: tasting.role, ingredient: key });
      saved = "Written to the pantry and put beside it.";
    });
  }
</script>

<div class="mt-5 flex flex-wrap items-end gap-4">
  <PickField label="Sauce on the bench" value={source} options={sources} onpick={begin} width="16rem" />
  {#if schools.length > 0}
    <PickField
      label="Held against"
      value={tasting.school || tasting.taste?.school || ""}
      options={schools.map((s) => ({ key: s.key, title: s.title }))}
      onpick={(key) => {
        tasting.school = key;
        tasting.proposed = null;
        tasting.ask();
      }}
    />
  {/if}
</div>
{#if tasting.taste?.why}<p class="mt-1 max-w-[44rem] text-[0.8125rem] quiet">{tasting.taste.why}</p>{/if}
{#if told.problem || tasting.problem}<p role="alert" class="mt-2 text-[0.875rem] text-error">
    {told.problem ?? tasting.problem}
  </p>{/if}

<div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 md:grid-cols-[minmax(0,1fr)_20rem]">
  <section aria-label="How it tastes">
    <div class="flex flex-wrap gap-2" role="group" aria-label="Make it">
      {#each handles as handle (handle.key)}
        <button
          class={["act min-h-11 px-3", tasting.proposed?.handle === handle.key && "border-primary bg-paper"]}
          aria-pressed={tasting.proposed?.handle === handle.key}
          disabled={tasting.lines.length === 0}
          onclick={() => tasting.propose(handle.key)}>{handle.title}</button
        >
      {/each}
    </div>
    <label class="mt-2 flex min-h-10 w-fit cursor-pointer items-center gap-2 text-[0.875rem]"
      ><input
        type="checkbox"
        class="size-4.5 accent-[var(--color-primary)]"
        bind:checked={tasting.onlyAdd}
        onchange={() => (tasting.proposed = null)}
      />At the bowl: only add</label
    >
    <Proposal {tasting} {handles} {nameOf} />
    {#if tasting.taste}
      <TasteMap
        taste={tasting.taste}
        titles={catalogue.tastes}
        proposed={tasting.proposed?.answer.bands ?? []}
      />
      {#if tasting.taste.taste.unsure.length > 0}
        <p class="mt-2 text-[0.8125rem] quiet">
          Known with low confidence: acid or bite of {tasting.taste.taste.unsure.join(", ").toLowerCase()}.
        </p>
      {/if}
    {:else}<p class="quiet">Loading…</p>{/if}
  </section>

  <section aria-label="What is in it">
    <SauceLines {tasting} things={offered} {nameOf} />
    {#if tasting.rounds.length > 0}
      <h3 class="mt-3 text-[0.875rem]">Rounds</h3>
      <ol class="list-decimal pl-5 text-[0.875rem] leading-snug" aria-label="Rounds">
        {#each tasting.rounds as round, n (n)}<li>{round}</li>{/each}
      </ol>
    {/if}
    <div class="mt-4 flex flex-wrap items-end gap-2 border-t border-base-300 pt-3">
      <button class="act" disabled={!tasting.canUndo} onclick={() => tasting.undo()}
        >Undo the last change</button
      >
      <QuickField label="Its name" value={name} width="11rem" oncommit={(text) => (name = text)} />
      <button class="act" disabled={tasting.lines.length === 0} onclick={keep}
        >{from ? "Write it back" : "Keep this sauce"}</button
      >
    </div>
    {#if saved}<p role="status" class="mt-1 text-[0.875rem]">{saved}</p>{/if}
  </section>
</div>
