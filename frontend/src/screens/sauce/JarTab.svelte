<!-- A jar: a vegetable in a brine, how far it is hour by hour, and a ferment in its own juice. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Ferment, type Pickled } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import { Told } from "../../lib/told.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { StepProps } from "../step";
  import UptakePicture from "./UptakePicture.svelte";

  let { catalogue }: StepProps = $props();
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const length = (value: number) => amount({ kind: "length_mm", value }, units);
  const share = (value: number) => amount({ kind: "fine_frac", value }, units);

  const hours = (value: number) => value.toFixed(value < 10 ? 1 : 0);

  let vinegar = $state("vinegar");
  let vinegar_g = $state(200);
  let water_g = $state(100);
  let sugar_g = $state(60);
  let salt_g = $state(8);
  let vegetable = $state("onion");
  let vegetable_g = $state(200);
  let slice_mm = $state(4);
  let stands = $state<"cold" | "warm">("cold");
  const named = (groups: string[]) =>
    catalogue.pantry
      .filter((i) => groups.includes(i.group) && !i.retired)
      .map((i) => ({ key: i.key, title: i.name }))
      .sort((a, b) => a.title.localeCompare(b.title));
  const vegetables = $derived(named(["vegetable", "onion"]));
  const sours = $derived(named(["acid"]));
  const jar = new Resource<null, Pickled>((_, signal) =>
    api.pickle(
      {
        lines: [
          { ingredient: vinegar, mass_g: vinegar_g },
          { ingredient: "water", mass_g: water_g },
          { ingredient: "sugar", mass_g: sugar_g },
          { ingredient: "salt-fine", mass_g: salt_g },
        ].filter((line) => line.mass_g > 0),
        vegetable,
        vegetable_g,
        slice_mm,
        cold: stands === "cold",
      },
      signal,
    ),
  );
  let kind = $state<"cabbage" | "cucumber">("cabbage");
  let fermented_g = $state(1000);
  let temp_c = $state(20);
  let salt_frac = $state<number | null>(null);
  const crock = new Resource<null, Ferment>((_, signal) =>
    api.ferment({ ferment: kind, vegetable_g: fermented_g, temp_c, salt_frac }, signal),
  );
  const told = new Told();

  $effect(() => {
    void [vinegar, vinegar_g, water_g, sugar_g, salt_g, vegetable, vegetable_g, slice_mm, stands];
    return jar.ask(null);
  });
  $effect(() => {
    void [kind, fermented_g, temp_c, salt_frac];
    return crock.ask(null);
  });
  onDestroy(() => {
    jar.clear();
    crock.clear();
  });
</script>

{#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
<section class="mt-5" aria-label="Pickle it">
  <h2 class="text-lg">Pickle it</h2>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <PickField
      label="Vegetable"
      value={vegetable}
      options={vegetables}
      width="9rem"
      onpick={(key) => (vegetable = key)}
    />
    <QuickField
      label="Of it"
      value={mass(vegetable_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (vegetable_g = v))}
    />
    <QuickField
      label="Slices"
      value={length(slice_mm)}
      oncommit={(t) => told.read("length_mm", t, (v) => (slice_mm = v))}
    />
    <Segments
      label="It stands"
      options={[
        { key: "cold", title: "Cold" },
        { key: "warm", title: "At room temperature" },
      ] as const}
      value={stands}
      onpick={(key) => (stands = key)}
    />
  </div>
  <div class="mt-3 flex flex-wrap items-end gap-3">
    <PickField label="Sour" value={vinegar} options={sours} width="9rem" onpick={(key) => (vinegar = key)} />
    <QuickField
      label="Of that"
      value={mass(vinegar_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (vinegar_g = v))}
    />
    <QuickField
      label="Water"
      value={mass(water_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (water_g = v))}
    />
    <QuickField
      label="Sugar"
      value={mass(sugar_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (sugar_g = v))}
    />
    <QuickField
      label="Salt"
      value={mass(salt_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (salt_g = v))}
    />
  </div>
  {#if jar.problem}
    <p role="alert" class="mt-3 text-[0.875rem] text-error">{jar.problem.detail}</p>
  {:else if jar.value}
    {@const found = jar.value}
    <div
      class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 md:grid-cols-[minmax(0,1fr)_19rem]"
      data-jar
    >
      <UptakePicture {found} />
      <div>
        <Fact label="Nine tenths of the way after"
          >{hours(found.ready_h.low)}–{hours(found.ready_h.high)} h</Fact
        >
        <p class="mt-1 text-[0.8125rem] leading-snug quiet">
          <Say text={found.usual_said} />
        </p>
        <h3 class="mt-3 text-[0.9375rem]">At rest, in all the water</h3>
        <div class="mt-1 flex flex-wrap gap-x-7 gap-y-2">
          <Fact label="Acid">{share(found.rest.acid_frac)}</Fact>
          <Fact label="Salt">{share(found.rest.salt_frac)}</Fact>
          <Fact label="Sugar">{share(found.rest.sugar_frac)}</Fact>
        </div>
        <p class="mt-3 border-l-4 border-warning pl-3 text-[0.875rem] leading-snug">
          <Say text={found.keeps} />
        </p>
      </div>
    </div>
  {:else}<p class="mt-3 quiet" aria-busy="true">Loading…</p>{/if}
</section>

<section class="mt-8 border-t-2 border-base-content pt-3" aria-label="Ferment it">
  <h2 class="text-lg">Ferment it</h2>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <Segments
      label="What"
      options={[
        { key: "cabbage", title: "Cabbage" },
        { key: "cucumber", title: "Cucumber" },
      ] as const}
      value={kind}
      onpick={(key) => {
        kind = key;
        salt_frac = null;
      }}
    />
    <QuickField
      label="Of it, cut"
      value={mass(fermented_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (fermented_g = v))}
    />
    <QuickField
      label="Salt of the whole"
      value={share(salt_frac ?? crock.value?.salt_frac ?? 0)}
      oncommit={(t) => told.read("frac", t, (v) => (salt_frac = v))}
    />
    <QuickField
      label="It stands at"
      value={amount({ kind: "temp_c", value: temp_c }, units)}
      oncommit={(t) => told.read("temp_c", t, (v) => (temp_c = v))}
    />
  </div>
  {#if crock.problem}
    <p role="alert" class="mt-3 text-[0.875rem] text-error">{crock.problem.detail}</p>
  {:else if crock.value}
    {@const found = crock.value}
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3" data-crock>
      <Fact label="Salt"><Qty kind="mass_g" value={found.salt_g} /></Fact>
      <Fact label="Young after">{found.young_days.low} to {found.young_days.high} days</Fact>
      <Fact label="Through after">{found.full_days.low} to {found.full_days.high} days</Fact>
      <Fact label="Left, drained"
        ><Qty kind="mass_g" value={found.left_g.low} high={found.left_g.high} /></Fact
      >
    </div>
    <p class="mt-3 max-w-[44rem] border-l-4 border-warning pl-3 text-[0.875rem] leading-snug">
      <Say text={found.keeps} />
    </p>
  {/if}
</section>
