<!-- Cooking down in a pot, and a vegetable in a brine: how long, and what comes of it. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type CookDown, type Pickled } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";

  let { catalogue }: StepProps = $props();
  const boils = [
    { key: "gentle", title: "Gentle" },
    { key: "simmer", title: "Simmer" },
    { key: "rolling", title: "Rolling boil" },
  ] as const;
  type Boil = (typeof boils)[number]["key"];
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const length = (value: number) => amount({ kind: "length_mm", value }, units);
  const percent = (frac: number) => amount({ kind: "frac", value: frac }, units);

  let start_g = $state(800);
  let left_g = $state(650);
  let diameter_mm = $state(240);
  let boil = $state<Boil>("gentle");
  const pot = new Resource<null, CookDown>((_, signal) =>
    api.cookDown({ start_g, left_g, diameter_mm, boil }, signal),
  );

  let vinegar_g = $state(200);
  let water_g = $state(100);
  let sugar_g = $state(60);
  let salt_g = $state(8);
  let vegetable = $state("onion");
  let vegetable_g = $state(200);
  let slice_mm = $state(4);
  let cold = $state("cold");
  const vegetables = $derived(
    catalogue.pantry
      .filter((i) => (i.group === "vegetable" || i.group === "onion") && !i.retired)
      .map((i) => ({ key: i.key, title: i.name })),
  );
  const jar = new Resource<null, Pickled>((_, signal) =>
    api.pickle(
      {
        lines: [
          { ingredient: "vinegar", mass_g: vinegar_g },
          { ingredient: "water", mass_g: water_g },
          { ingredient: "sugar", mass_g: sugar_g },
          { ingredient: "salt-fine", mass_g: salt_g },
        ].filter((line) => line.mass_g > 0),
        vegetable,
        vegetable_g,
        slice_mm,
        cold: cold === "cold",
      },
      signal,
    ),
  );
  let unread = $state<string | null>(null);

  $effect(() => {
    void [start_g, left_g, diameter_mm, boil];
    return pot.ask(null);
  });
  $effect(() => {
    void [vinegar_g, water_g, sugar_g, salt_g, vegetable, vegetable_g, slice_mm, cold];
    return jar.ask(null);
  });
  onDestroy(() => {
    pot.clear();
    jar.clear();
  });

  async function read(
    kind: "mass_g" | "length_mm",
    text: string,
    set: (value: number) => void,
  ): Promise<void> {
    unread = null;
    try {
      set((await api.read(kind, text, units.system)).value);
    } catch (error) {
      unread = error instanceof Error ? error.message : String(error);
    }
  }
</script>

{#if unread}<p role="alert" class="mt-3 text-[0.875rem] text-error">{unread}</p>{/if}
<div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 md:grid-cols-2">
  <section aria-label="Cook it down">
    <h2 class="border-b-2 border-base-content pb-1 text-base">Cook it down</h2>
    <div class="mt-3 flex flex-wrap items-end gap-3">
      <QuickField
        label="Goes in"
        value={mass(start_g)}
        oncommit={(t) => read("mass_g", t, (v) => (start_g = v))}
      />
      <QuickField
        label="To be left"
        value={mass(left_g)}
        oncommit={(t) => read("mass_g", t, (v) => (left_g = v))}
      />
      <QuickField
        label="Pot, inside"
        value={length(diameter_mm)}
        oncommit={(t) => read("length_mm", t, (v) => (diameter_mm = v))}
      />
    </div>
    <div class="mt-3">
      <Segments label="How hard" options={boils} value={boil} onpick={(key) => (boil = key)} />
    </div>
    {#if pot.problem}
      <p role="alert" class="mt-3 text-[0.875rem] text-error">{pot.problem.detail}</p>
    {:else if pot.value}
      <div class="mt-4 flex flex-wrap gap-x-8 gap-y-3" data-pot>
        <Fact label="About"
          ><Qty kind="minutes" value={pot.value.minutes.low} high={pot.value.minutes.high} /></Fact
        >
        <Fact label="Water to lose"><Qty kind="mass_g" value={pot.value.water_g} /></Fact>
        <Fact label="To come to the boil"><Qty kind="time_s" value={pot.value.heat_up_s} /></Fact>
      </div>
      <p class="mt-2 max-w-[32rem] text-[0.875rem] leading-snug">
        Usual <Qty kind="minutes" value={pot.value.minutes.usual} />. {#if pot.value.bound_by === "surface"}The
          surface of the pot decides: a wider one is faster.{:else if pot.value.bound_by === "burner"}The
          burner decides.{/if} Salt, sugar and acid rise {pot.value.concentrates.toFixed(2)} times: salt at the
        end.
      </p>
    {:else}<p class="mt-3 quiet">Loading…</p>{/if}
  </section>

  <section aria-label="Pickle it">
    <h2 class="border-b-2 border-base-content pb-1 text-base">Pickle it</h2>
    <div class="mt-3 flex flex-wrap items-end gap-3">
      <QuickField
        label="Vinegar, 5 %"
        value={mass(vinegar_g)}
        oncommit={(t) => read("mass_g", t, (v) => (vinegar_g = v))}
      />
      <QuickField
        label="Water"
        value={mass(water_g)}
        oncommit={(t) => read("mass_g", t, (v) => (water_g = v))}
      />
      <QuickField
        label="Sugar"
        value={mass(sugar_g)}
        oncommit={(t) => read("mass_g", t, (v) => (sugar_g = v))}
      />
      <QuickField
        label="Salt"
        value={mass(salt_g)}
        oncommit={(t) => read("mass_g", t, (v) => (salt_g = v))}
      />
      <PickField
        label="Vegetable"
        value={vegetable}
        options={vegetables}
        onpick={(key) => (vegetable = key)}
      />
      <QuickField
        label="Of it"
        value={mass(vegetable_g)}
        oncommit={(t) => read("mass_g", t, (v) => (vegetable_g = v))}
      />
      <QuickField
        label="Slices"
        value={length(slice_mm)}
        oncommit={(t) => read("length_mm", t, (v) => (slice_mm = v))}
      />
      <Segments
        label="It stands"
        options={[
          { key: "cold", title: "Cold" },
          { key: "warm", title: "At room temperature" },
        ]}
        value={cold}
        onpick={(key) => (cold = key)}
      />
    </div>
    {#if jar.problem}
      <p role="alert" class="mt-3 text-[0.875rem] text-error">{jar.problem.detail}</p>
    {:else if jar.value}
      <div class="mt-4 flex flex-wrap gap-x-8 gap-y-3" data-jar>
        <Fact label="Acid, at rest">{percent(jar.value.rest.acid_frac)}</Fact>
        <Fact label="Salt">{percent(jar.value.rest.salt_frac)}</Fact>
        <Fact label="Sugar">{percent(jar.value.rest.sugar_frac)}</Fact>
        <Fact label="There after a day"
          >{percent(jar.value.after_day.low)} to {percent(jar.value.after_day.high)}</Fact
        >
        <Fact label="After three">{percent(jar.value.after_three_days.low)} or more</Fact>
      </div>
      <p class="mt-2 max-w-[34rem] text-[0.875rem] leading-snug"><Say text={jar.value.keeps} /></p>
      <p class="mt-1 text-[0.8125rem] quiet">Usual practice: slices of 3 to 5 mm, one to three days ahead.</p>
    {:else}<p class="mt-3 quiet">Loading…</p>{/if}
  </section>
</div>
