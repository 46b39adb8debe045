<!-- A pot: cooked down to a mass or a thickness, balls in it, fat skimmed off, and what thickens it. -->
<script lang="ts">
  import { onDestroy, onMount } from "svelte";
  import { api, type Catalogue, type Pot, type SauceLine } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import { Told } from "../../lib/told.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import PotTook from "./PotTook.svelte";
  import type { StepProps } from "../step";
  import KeepSection from "./KeepSection.svelte";
  import PotPicture from "./PotPicture.svelte";
  import ThickenSection from "./ThickenSection.svelte";

  let { formula, evaluation, catalogue }: StepProps = $props();
  const boils = [
    { key: "gentle", title: "Gentle" },
    { key: "simmer", title: "Simmer" },
    { key: "rolling", title: "Rolling boil" },
  ] as const;
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const length = (value: number) => amount({ kind: "length_mm", value }, units);
  const tastes = $derived(new Map(catalogue.tastes.map((t) => [t.key, t])));
  const figure = (key: string, value: number) => {
    const shown = tastes.get(key as Catalogue["tastes"][number]["key"]);
    return `${value.toFixed(shown?.digits ?? 1)}${shown?.unit ?? ""}`;
  };
  const share = (value: number) => amount({ kind: "fine_frac", value }, units);

  interface Content {
    key: string;
    title: string;
    lines: SauceLine[];
    left_g: number;
    left_frac: number;
  }
  const plain: Content = { key: "", title: "Something else, by grams", lines: [], left_g: 0, left_frac: 0 };
  let contents = $state.raw<Content[]>([plain]);
  let content = $state.raw<Content>(plain);
  let start_g = $state(800);
  let left = $state.raw<{ left_g?: number; left_frac?: number; dry_frac?: number }>({ left_g: 650 });
  let diameter_mm = $state(240);
  let boil = $state<(typeof boils)[number]["key"]>("gentle");
  let fat_wanted_frac = $state(1);
  let balls = $state(0);
  let ready = $state(false);
  const told = new Told();
  const pot = new Resource<null, Pot>((_, signal) =>
    api.cookDown(
      {
        lines: content.lines,
        start_g,
        left_g: 0,
        left_frac: 0,
        dry_frac: 0,
        ...left,
        diameter_mm,
        boil,
        fat_wanted_frac,
        portions: formula.dish.guests,
        balls,
        ball_mm,
      },
      signal,
    ),
  );
  const round = $derived(formula.dish.dish === "meatball");
  const ball_mm = $derived(evaluation.shape.raw_diameter_mm);
  $effect(() => {
    void [content, start_g, left, diameter_mm, boil, fat_wanted_frac, balls, ball_mm, formula.dish.guests];
    // What the schools start with would take the place of what a quick hand changed: nothing is shown before.
    if (ready) return pot.ask(null);
  });
  onMount(() => {
    if (round) balls = evaluation.portions.pieces;
    const loading = told.run(async () => {
      const [schools, room] = await Promise.all([api.sauceSchools(), api.pantry()]);
      const beside = new Set(evaluation.beside.things.map((t) => t.ingredient));
      const houses = room.ingredients.flatMap(({ ingredient: i }) =>
        i.house && beside.has(i.key)
          ? [{ key: i.key, title: i.name, lines: [...i.house.lines], left_g: i.house.yield_g, left_frac: 0 }]
          : [],
      );
      const starts = schools.map((s) => ({
        key: `school:${s.key}`,
        title: `${s.title}, as its school starts`,
        lines: s.lines.map(([ingredient, mass_g]) => ({ ingredient, mass_g })),
        left_g: 0,
        left_frac: s.left_frac,
      }));
      // What is cooked in a pot comes first.
      starts.sort((a, b) => (a.left_frac < 1 ? 0 : 1) - (b.left_frac < 1 ? 0 : 1));
      contents = [...houses, ...starts, plain];
      // What a quick hand chose meanwhile stands.
      if (!chosen) show(houses[0] ?? starts[0] ?? plain);
    });
    // Without them a pot is still cooked down by grams.
    void loading.then(() => (ready = true));
  });
  onDestroy(() => {
    pot.clear();
  });

  let chosen = false;
  function pick(key: string): void {
    chosen = true;
    show(contents.find((c) => c.key === key) ?? plain);
  }
  function show(now: Content): void {
    content = now;
    if (content === plain) left = { left_frac: 0.8 };
    else left = content.left_g ? { left_g: content.left_g } : { left_frac: content.left_frac };
  }
</script>

{#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
<section class="mt-5" aria-label="Cook it down">
  <div class="flex flex-wrap items-end gap-3">
    <PickField label="In the pot" value={content.key} options={contents} onpick={pick} width="16rem" />
    {#if content.lines.length === 0}<QuickField
        label="Goes in"
        value={mass(start_g)}
        oncommit={(t) => told.read("mass_g", t, (v) => (start_g = v))}
      />{/if}
    <QuickField
      label="To be left"
      value={pot.value ? mass(pot.value.cook.left_g) : ""}
      oncommit={(t) => told.read("mass_g", t, (v) => (left = { left_g: v }))}
    />
    {#if content.lines.length > 0}<QuickField
        label="Dry matter"
        value={pot.value ? share(pot.value.dry_frac) : ""}
        oncommit={(t) => told.read("frac", t, (v) => (left = { dry_frac: v }))}
      />{/if}
    <QuickField
      label="Pot, inside"
      value={length(diameter_mm)}
      oncommit={(t) => told.read("length_mm", t, (v) => (diameter_mm = v))}
    />
    <Segments label="How hard" options={boils} value={boil} onpick={(key) => (boil = key)} />
    {#if round}<QuickField
        label="Balls in it"
        value={String(balls)}
        width="5rem"
        oncommit={(t) => told.read("number", t, (v) => (balls = v))}
      />{/if}
  </div>
  {#if pot.problem}
    <p role="alert" class="mt-3 text-[0.875rem] text-error">{pot.problem.detail}</p>
  {/if}
  {#if pot.value}
    {@const found = pot.value}
    <div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 md:grid-cols-[minmax(0,1fr)_19rem]">
      <PotPicture pot={found} {diameter_mm} {ball_mm} onleft={(frac) => (left = { left_frac: frac })} />
      <div data-pot>
        <div class="flex flex-wrap gap-x-8 gap-y-3">
          <Fact label={`Usual ${Math.round(found.cook.minutes.usual)} min, between`}
            ><Qty kind="minutes" value={found.cook.minutes.low} high={found.cook.minutes.high} /></Fact
          >
          <Fact label="Boils off"><Qty kind="mass_g" value={found.cook.water_g} /></Fact>
          {#if found.portion_g}<Fact label="A portion"><Qty kind="mass_g" value={found.portion_g} /></Fact
            >{/if}
        </div>
        <p class="mt-3 text-[0.875rem] leading-snug">
          To the boil in <Qty kind="time_s" value={found.cook.heat_up_s} />. {#if found.cook.bound_by === "surface"}The
            open surface decides how fast it goes: a wider pot is faster.{:else if found.cook.bound_by === "burner"}The
            burner decides how fast it goes.{/if} The pot has to be <Qty
            kind="length_mm"
            value={found.depth_mm}
          /> deep.
        </p>
        <PotTook pot={found} {boil} {diameter_mm} />
        {#if found.balls}
          <p class="mt-3 border-l-4 border-primary pl-3 text-[0.9375rem] leading-snug" data-balls>
            {found.balls.balls} balls in {found.balls.layers === 1
              ? "one layer"
              : `${found.balls.layers} layers`}:
            <Qty kind="mass_g" value={found.balls.cover_g} /> cover them to two thirds, <Qty
              kind="mass_g"
              value={found.balls.drown_g}
            /> altogether. This sauce covers <Qty kind="frac" value={found.balls.covered_frac} />, <Qty
              kind="mass_g"
              value={found.balls.sauce_per_ball_g}
            /> a ball{#if found.balls.sauce_short_g > 0}; <strong class="text-warning"
                ><Qty kind="mass_g" value={found.balls.sauce_short_g} /> short of two thirds</strong
              >{/if}.
          </p>
        {/if}
        {#if found.before && found.after}
          <table class="mt-3 w-full text-[0.9375rem]">
            <caption class="text-left text-[0.8125rem] quiet"
              >Everything but water stays: salt it at the end.</caption
            >
            <thead
              ><tr class="text-[0.8125rem] quiet"
                ><th class="text-left font-normal">Of it</th><th class="text-right font-normal">goes in</th
                ><th class="text-right font-normal">is left</th></tr
              ></thead
            >
            <tbody>
              {#each catalogue.tastes.filter((t) => t.unit === " %" && t.key !== "water") as { key, title } (key)}
                {@const then = found.before[key]}
                {@const now = found.after[key]}
                <tr class="border-t border-base-300"
                  ><th scope="row" class="py-1 text-left font-normal">{title}</th>
                  <td class="text-right numeral">{figure(key, then)}</td>
                  <td class="text-right numeral">{figure(key, now)}</td></tr
                >
              {/each}
            </tbody>
          </table>
          <div class="mt-3 flex flex-wrap items-end gap-3">
            <QuickField
              label="Fat wanted"
              value={fat_wanted_frac < 1 ? share(fat_wanted_frac) : ""}
              placeholder="as it is"
              oncommit={(t) => told.read("frac", t, (v) => (fat_wanted_frac = v))}
            />
            {#if fat_wanted_frac < 1}<p class="pb-2 text-[0.9375rem]" role="status">
                {#if found.skim_g > 0}Skim <strong><Qty kind="mass_g" value={found.skim_g} /></strong> of fat.{:else}It
                  holds no more than that.{/if}
              </p>{/if}
          </div>
        {/if}
      </div>
    </div>
  {:else if !pot.problem}<p class="mt-4 quiet" aria-busy="true">Loading…</p>{/if}
</section>

<ThickenSection />
<KeepSection />
