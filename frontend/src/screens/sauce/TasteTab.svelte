<!-- A sauce tasted: its lines in grams, its tastes against a school, and words that propose the smallest change. -->
<script lang="ts">
  import Lock from "@lucide/svelte/icons/lock";
  import Replace from "@lucide/svelte/icons/replace";
  import LockOpen from "@lucide/svelte/icons/lock-open";
  import { onDestroy, onMount } from "svelte";
  import { api, ProblemError, type Handle, type PantryThing, type SauceSchool } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import PickField from "../../lib/ui/PickField.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";
  import { TasteBench } from "./taste.svelte";
  import TasteMap from "./TasteMap.svelte";

  let { bench, evaluation, catalogue }: StepProps = $props();
  const tasting = new TasteBench();
  let schools = $state.raw<SauceSchool[]>([]);
  let pantry = $state.raw<PantryThing[]>([]);
  let failed = $state<string | null>(null);
  let name = $state("");
  let saved = $state("");
  let fresh = $state("");
  let said = $state("");
  /** What the sauce is scaled by: an ingredient, or "" for all of it. */
  let scaling = $state("");
  let pouring = $state("mayonnaise");
  let before = $state("");
  let after = $state("");
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
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const signed = (value: number) =>
    `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(Math.abs(value) < 0.1 ? 2 : 1)} g`;
  const sauces = $derived(pantry.filter((t) => t.ingredient.house && !t.ingredient.retired));
  const sources = $derived([
    ...sauces.map((t) => ({ key: `house:${t.ingredient.key}`, title: `${t.ingredient.name} (house)` })),
    ...schools.map((s) => ({ key: `school:${s.key}`, title: `${s.title}, as its school starts` })),
  ]);
  let source = $state("");

  async function told(run: () => Promise<void>): Promise<void> {
    failed = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      failed = error.problem.detail;
    }
  }

  function begin(key: string): void {
    source = key;
    saved = "";
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
    void told(async () => {
      const [found, room] = await Promise.all([api.sauceSchools(), api.pantry()]);
      schools = found;
      pantry = room.ingredients;
      const here = evaluation.beside.things.find((t) => t.house);
      begin(here ? `house:${here.ingredient}` : `school:${found[0]?.key}`);
    });
  });
  onDestroy(() => tasting.close());

  async function setLine(ingredient: string, text: string): Promise<void> {
    await told(async () => {
      const { mass_g } = await api.readAmount(ingredient, text, units.system);
      tasting.setLine(ingredient, mass_g, `${nameOf(ingredient)} set to ${mass(mass_g)}`);
    });
  }

  async function say(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const sent = said;
    said = "";
    // What was not read comes back, to be mended.
    if (sent.trim() && !(await tasting.compose(sent, units.system))) said = sent;
  }

  async function scaleTo(text: string): Promise<void> {
    await told(async () => {
      const { value } = await api.read("mass_g", text, units.system);
      const of = scaling ? `of ${nameOf(scaling).toLowerCase()}` : "in all";
      await tasting.scale(
        scaling
          ? { whole_g: 0, ingredient: scaling, mass_g: value }
          : { whole_g: value, ingredient: "", mass_g: 0 },
        `Scaled to ${mass(value)} ${of}`,
      );
    });
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (fresh) tasting.addLine(fresh, 10, `${nameOf(fresh)} +${mass(10)}`);
    fresh = "";
  }

  function take(): void {
    const proposed = tasting.proposed;
    const word = handles.find((h) => h.key === proposed?.handle)?.title ?? "";
    const moved = proposed?.answer.nudge?.moved ?? [];
    tasting.take(
      `${word}: ${moved.map((m) => `${signed(m.change_g)} ${nameOf(m.ingredient).toLowerCase()}`).join(", ")}`,
    );
  }

  const grams = (added: readonly (readonly [string, number])[]) =>
    added.map(([key, g]) => `${mass(g)} ${nameOf(key).toLowerCase()}`).join(", ");

  async function pour(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await told(async () => {
      const [was, is] = await Promise.all([
        api.read("mass_g", before, units.system),
        api.read("mass_g", after, units.system),
      ]);
      await tasting.poured(
        pouring,
        was.value,
        is.value,
        (g) => `Poured ${mass(g)} ${nameOf(pouring).toLowerCase()}`,
      );
      if (!tasting.problem) [before, after] = [after, ""];
    });
  }

  /** Write it to the pantry, and put it beside the formula when it is new. */
  async function keep(): Promise<void> {
    await told(async () => {
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
        method: [from?.ingredient.house?.method, ...tasting.rounds].filter(Boolean).join("\n").slice(0, 2000),
        acid: from?.ingredient.house?.acid ?? false,
      };
      await api.saveIngredient({ ...base, name: name.trim() || base.name, house }, from?.revision ?? 0);
      pantry = (await api.pantry()).ingredients;
      from = pantry.find((t) => t.ingredient.key === key) ?? null;
      source = `house:${key}`;
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
{#if failed || tasting.problem}<p role="alert" class="mt-2 text-[0.875rem] text-error">
    {failed ?? tasting.problem}
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
    {#if tasting.proposed}
      <div class="my-3 border-l-4 border-primary pl-3" role="status" data-proposal>
        {#if tasting.proposed.answer.nudge}
          <h2 class="text-base">
            {handles.find((h) => h.key === tasting.proposed?.handle)?.title}: {#each tasting.proposed.answer.nudge.moved as m, n (m.ingredient)}{n
                ? ", "
                : ""}{signed(m.change_g)}
              {nameOf(m.ingredient).toLowerCase()}{/each}
          </h2>
          <p class="text-[0.875rem]">
            {#if tasting.proposed.answer.nudge.gave_way.length > 0}It also moves {tasting.proposed.answer.nudge.gave_way.join(
                ", ",
              )} by more than a tongue would miss.{:else}Everything else stays as it is.{/if}
          </p>
          <div class="mt-2 flex gap-2">
            <button class="act act-main" onclick={take}>Do it</button>
            <button class="act" onclick={() => (tasting.proposed = null)}>Leave it</button>
          </div>
        {:else}
          <p class="text-[0.9375rem]">
            No change makes it so without making it another sauce. Let a held line go, or add something new.
          </p>
        {/if}
      </div>
    {/if}
    {#if tasting.offers}
      {@const gone = nameOf(tasting.offers.ingredient).toLowerCase()}
      <div class="my-3 border-l-4 border-primary pl-3" role="status" data-offers>
        <h2 class="text-base">Instead of {gone}</h2>
        <ul>
          {#each tasting.offers.offers as offer (offer.swapped.ingredient)}
            <li class="flex flex-wrap items-center justify-between gap-x-4 border-t border-base-300 py-1.5">
              <span class="min-w-0 flex-1 basis-56"
                ><span class="font-semibold">{grams(offer.swapped.added)}</span><span
                  class="block text-[0.8125rem] quiet"
                  >{offer.swapped.missed.length === 0
                    ? "A tongue would miss nothing these figures show."
                    : `Misses its ${offer.swapped.missed.join(", ")}.`}</span
                ></span
              >
              <button
                class="act"
                onclick={() => tasting.swap(offer, `For ${gone}: ${grams(offer.swapped.added)}`)}
                >Take it</button
              >
            </li>
          {:else}<li class="py-1 text-[0.9375rem]">
              Nothing in the pantry comes near it: leave it out and nudge.
            </li>{/each}
        </ul>
        <button class="mt-1 act" onclick={() => (tasting.offers = null)}>Leave it</button>
      </div>
    {/if}
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
    <div class="flex items-baseline justify-between">
      <h2 class="text-base">What is in it</h2>
      <span class="numeral">{mass(tasting.taste?.whole_g ?? 0)}</span>
    </div>
    <ul class="mt-1">
      {#each tasting.lines as line (line.ingredient)}
        {@const held = tasting.locked.includes(line.ingredient)}
        <li class="flex items-center gap-2 border-t border-base-300 py-1.5">
          <span class="min-w-0 flex-1 truncate text-[0.9375rem] font-semibold">{nameOf(line.ingredient)}</span
          >
          <QuickField
            label={`Grams of ${nameOf(line.ingredient).toLowerCase()}`}
            value={mass(line.mass_g)}
            width="5.5rem"
            bare
            oncommit={(text) => setLine(line.ingredient, text)}
          />
          <button
            class="act size-[2.625rem] p-0"
            aria-pressed={held}
            onclick={() => tasting.hold(line.ingredient)}
            >{#if held}<Lock size={18} aria-hidden="true" />{:else}<LockOpen
                size={18}
                aria-hidden="true"
              />{/if}<span class="sr-only">Hold {nameOf(line.ingredient)}</span></button
          >
          <button
            class="act size-[2.625rem] p-0"
            title="It cannot be had"
            onclick={() => tasting.lacks(line.ingredient)}
            ><Replace size={18} aria-hidden="true" /><span class="sr-only"
              >{nameOf(line.ingredient)} cannot be had</span
            ></button
          >
        </li>
      {/each}
    </ul>
    <form class="mt-2 flex gap-2" onsubmit={say} aria-label="Say what goes in">
      <input
        class="h-[2.625rem] min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 placeholder:text-quiet"
        aria-label="What goes in"
        placeholder="3 tbsp yoghurt, 2 tsp mustard"
        autocomplete="off"
        spellcheck="false"
        maxlength="600"
        bind:value={said}
      />
      <button class="act" disabled={!said.trim()}>Stir it in</button>
    </form>
    <form class="mt-2 flex gap-2" onsubmit={add}>
      <select
        class="h-[2.625rem] min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2"
        aria-label="Something more"
        bind:value={fresh}
      >
        <option value="">Something more …</option>
        {#each catalogue.pantry.filter((i) => !i.retired && i.key !== from?.ingredient.key) as thing (thing.key)}
          <option value={thing.key}>{thing.name}</option>
        {/each}
      </select>
      <button class="act" disabled={!fresh}>Add 10 g</button>
    </form>
    <div class="mt-3 flex flex-wrap items-end gap-2 border-t border-base-300 pt-2">
      <label class="min-w-0 flex-1 basis-32 text-[0.8125rem] quiet"
        >Scale it by<select
          class="mt-0.5 block h-[2.625rem] w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 text-base text-base-content"
          bind:value={scaling}
        >
          <option value="">All of it</option>
          {#each tasting.lines as line (line.ingredient)}<option value={line.ingredient}
              >{nameOf(line.ingredient)}</option
            >{/each}
        </select></label
      >
      <QuickField label="To" value="" placeholder="900 g" oncommit={scaleTo} />
    </div>
    <form class="mt-3 border-t border-base-300 pt-2" onsubmit={pour} aria-label="Poured at the bowl">
      <p class="text-[0.8125rem] quiet">Poured without measuring: the scale before and after.</p>
      <div class="mt-1 flex flex-wrap items-end gap-2">
        <select
          class="h-[2.625rem] min-w-0 flex-1 basis-32 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2"
          aria-label="What was poured"
          bind:value={pouring}
        >
          {#each catalogue.pantry.filter((i) => !i.retired && i.key !== from?.ingredient.key) as thing (thing.key)}
            <option value={thing.key}>{thing.name}</option>
          {/each}
        </select>
        <input
          class="h-[2.625rem] w-20 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 numeral"
          aria-label="Scale before"
          placeholder="before"
          autocomplete="off"
          bind:value={before}
        />
        <input
          class="h-[2.625rem] w-20 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 numeral"
          aria-label="Scale after"
          placeholder="after"
          autocomplete="off"
          bind:value={after}
        />
        <button class="act" disabled={!before || !after}>Add it</button>
      </div>
    </form>
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
