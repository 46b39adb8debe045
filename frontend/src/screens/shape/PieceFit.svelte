<!-- Against what it lies in or on: how far off, and the one or two ways to make it fit. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    shape: Evaluation["shape"];
    onworking: (working: string) => void;
  }
  let { bench, shape, onworking }: Props = $props();
  const fit = $derived(shape.fit);
  const off = $derived(fit?.off_mm ?? 0);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const g = (value: number) => amount({ kind: "mass_g", value }, units);
  const percent = (value: number) =>
    `${value < 0 ? "−" : "+"}${amount({ kind: "fine_frac", value: Math.abs(value) }, units)}`;
  const scoop = $derived(shape.scoop);
  const vessel = $derived(shape.vessel);
  const set = (figure: "cooked_diameter" | "piece_mass", value: number) =>
    bench.edit({ kind: "set", figure, value, item: "" });
</script>

<div class="flex flex-wrap gap-x-8 gap-y-3.5 sm:flex-col">
  {#if fit}
    <div>
      <span class="block text-[0.8125rem] quiet">Against its bread</span>
      <span class="block text-[1.1875rem] leading-tight numeral">
        {#if off === 0}as wide{:else}{mm(Math.abs(off))} {off > 0 ? "wider" : "narrower"}{/if}
      </span>
      {#if off !== 0}
        <div class="mt-1.5 flex flex-col items-stretch gap-1.5">
          <button class="act text-sm" onclick={() => set("cooked_diameter", fit.wanted_mm)}
            >{off > 0 ? "Thicken" : "Press"} to {mm(fit.thickness_mm)}</button
          >
          {#if !shape.mould_key}<button
              class="act text-sm"
              onclick={() => set("piece_mass", Math.round(fit.mass_g))}
              >Make it {g(Math.round(fit.mass_g))}</button
            >{/if}
        </div>
      {/if}
    </div>
  {/if}
  {#if vessel}
    <Fact label={`${shape.mould_name} holds`} onclick={() => onworking("diameter")}
      ><Qty kind="volume_ml" value={vessel.holds_ml} /></Fact
    >
    <Fact label="The loaf" onclick={() => onworking("diameter")}
      ><Qty kind="volume_ml" value={vessel.filled_ml} /></Fact
    >
    <div>
      <span class="block text-[0.8125rem] quiet"
        >{vessel.headspace_mm < 0 ? "Above the brim" : "Headspace"}</span
      >
      <span class={["block text-[1.1875rem] leading-tight numeral", vessel.over_g > 0.5 && "text-error"]}>
        {mm(Math.abs(vessel.headspace_mm))}{#if vessel.over_g > 0.5}, {g(vessel.over_g)}{/if}
      </span>
      <button class="mt-1.5 act text-sm" onclick={() => set("piece_mass", Math.floor(vessel.fits_g))}
        >Fill it with {g(Math.floor(vessel.fits_g))}</button
      >
    </div>
  {/if}
  {#if scoop}
    <div>
      <span class="block text-[0.8125rem] quiet">Nearest scoop</span>
      <span class="block text-[1.1875rem] leading-tight numeral" data-scoop
        >{scoop.name || `No. ${scoop.number_of_all}`}</span
      >
      <span class="block text-[0.8125rem] quiet"
        >level: {g(scoop.key ? scoop.mass_g : scoop.mass_of_all_g)}, {percent(
          scoop.key ? scoop.error_frac : scoop.error_of_all_frac,
        )}</span
      >
      {#if scoop.worth_going_by && shape.mould_key !== scoop.key}
        <button
          class="mt-1.5 act text-sm"
          onclick={() => bench.edit({ kind: "choose", field: "mould", key: scoop.key })}
          >Go by the scoop</button
        >
      {/if}
      {#if scoop.another_is_nearer}
        <span class="mt-0.5 block text-[0.8125rem] quiet"
          >No. {scoop.number_of_all} would be nearer: {percent(scoop.error_of_all_frac)}</span
        >
      {/if}
    </div>
  {/if}
</div>
