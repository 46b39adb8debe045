<!-- What thickens a gravy: starch, the fat of its roux, and the liquid in additions. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Thickening } from "../../lib/api/client";
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

  const starches = [
    { key: "flour", title: "Flour, white roux" },
    { key: "brown-roux", title: "Flour, brown roux" },
    { key: "cornflour", title: "Cornflour" },
  ] as const;
  const bodies = [
    { key: "thin", title: "Runs" },
    { key: "coating", title: "Coats a spoon" },
    { key: "thick", title: "Stands" },
  ] as const;
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  let liquid_g = $state(600);
  let thickener = $state<(typeof starches)[number]["key"]>("flour");
  let body = $state<(typeof bodies)[number]["key"]>("coating");
  const thick = new Resource<null, Thickening>((_, signal) =>
    api.thicken({ liquid_g, thickener, body }, signal),
  );

  $effect(() => {
    void [liquid_g, thickener, body];
    return thick.ask(null);
  });
  onDestroy(() => thick.clear());

  const told = new Told();
</script>

<section class="mt-8 border-t-2 border-base-content pt-3" aria-label="Thicken it">
  <h2 class="text-lg">Thicken it</h2>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <QuickField
      label="Liquid"
      value={mass(liquid_g)}
      oncommit={(t) => told.read("mass_g", t, (v) => (liquid_g = v))}
    />
    <PickField
      label="With"
      value={thickener}
      options={[...starches]}
      onpick={(key) => (thickener = key as typeof thickener)}
    />
    <Segments label="So that it" options={bodies} value={body} onpick={(key) => (body = key)} />
  </div>
  {#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
  {#if thick.problem}
    <p role="alert" class="mt-3 text-[0.875rem] text-error">{thick.problem.detail}</p>
  {:else if thick.value}
    {@const t = thick.value}
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3" data-thick>
      <Fact label={thickener === "cornflour" ? "Cornflour" : "Flour"}
        ><Qty kind="mass_g" value={t.starch_g.low} high={t.starch_g.high} /></Fact
      >
      {#if t.fat_g.high > 0}<Fact label="Fat of the roux"
          ><Qty kind="mass_g" value={t.fat_g.low} high={t.fat_g.high} /></Fact
        >{:else}<Fact label="Stirred into cold water"><Qty kind="mass_g" value={t.cold_water_g} /></Fact>{/if}
      <Fact label="Then simmers"><Qty kind="minutes" value={t.minutes.low} high={t.minutes.high} /></Fact>
    </div>
    <div class="mt-2 max-w-[40rem] text-[0.875rem] leading-snug">
      {#if t.additions_g.length > 1}<p>
          The liquid in {t.additions_g.length} additions, {#each t.additions_g as g, n (n)}{n ? ", " : ""}<Qty
              kind="mass_g"
              value={g}
            />{/each}, stirred smooth before the next.
        </p>{/if}
      <p><Say text={t.said} /></p>
    </div>
  {/if}
</section>
