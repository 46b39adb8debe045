<!-- The lots: what is left, its day, and its fat by name and after evidence, drawn to one scale. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { KnownLot, Meat } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    lots: KnownLot[];
    meats: Meat[];
    onnew: () => void;
    onedit: (known: KnownLot) => void;
    onlearn: (key: string) => void;
  }
  let { lots, meats, onnew, onedit, onlearn }: Props = $props();
  const day = today();
  let closed = $state(false);
  const shown = $derived(lots.filter((l) => closed || !l.lot.closed));
  const name = (key: string) => meats.find((m) => m.key === key)?.name ?? key;
  const most = $derived(Math.min(1, Math.max(0.3, ...shown.map((l) => l.prior.high_frac)) + 0.04));
  const x = $derived(scaleLinear([0, most], [4, 216]));
  const pct = (low: number, high: number) => amount({ kind: "frac", value: low, high }, units);
  const kinds = {
    label: "label",
    butcher: "butcher’s word",
    "fat-test": "fat test",
    laboratory: "laboratory",
  } as const;
</script>

<section aria-label="Lots" class="mt-5">
  <div class="flex flex-wrap items-end justify-between gap-3">
    <h2 class="text-lg">Lots in the cold</h2>
    <div class="flex items-center gap-4">
      {#if lots.some((l) => l.lot.closed)}
        <label class="flex min-h-10 items-center gap-2 text-[0.875rem]"
          ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={closed} /> used-up
          ones too</label
        >
      {/if}
      <button class="act" onclick={onnew}>Add a delivery</button>
    </div>
  </div>
  {#if shown.length === 0}
    <p class="mt-2 text-[0.9375rem] quiet">
      No lots yet. Add a delivery to keep its price, its day and its fat: a label, a word, or a test of it.
    </p>
  {:else}
    <ul class="mt-2 border-t border-base-300">
      {#each shown as known (known.lot.key)}
        {@const lot = known.lot}
        <li
          class={[
            "grid items-center gap-x-6 gap-y-2 border-b border-base-300 py-3 md:grid-cols-[minmax(0,1.2fr)_minmax(0,0.9fr)_14.5rem_auto]",
            lot.closed && "opacity-60",
          ]}
          data-lot={lot.key}
        >
          <div class="min-w-0">
            <p class="truncate text-[1.0625rem] font-semibold">{lot.name}</p>
            <p class="text-[0.8125rem] quiet">
              {name(lot.meat)} · came {lot.delivered}{lot.use_by ? ` · use by ${lot.use_by}` : ""}
            </p>
            {#if lot.use_by && lot.use_by < day && !lot.closed}<p
                class="text-[0.8125rem] font-semibold text-error"
              >
                Past its day: smell, slime and the date decide, and in uncertainty it goes
              </p>{/if}
          </div>
          <p class="numeral">
            <Qty kind="mass_g" value={lot.left_mass_g} />
            <span class="font-normal quiet"
              >left at <Qty kind="price_per_kg" value={Number(lot.price_per_kg)} /></span
            >
          </p>
          <div>
            <svg
              viewBox="0 0 220 40"
              class="block w-full max-w-56"
              role="img"
              aria-label={`Fat by its name ${pct(known.prior.low_frac, known.prior.high_frac)}, as known ${pct(known.known.low_frac, known.known.high_frac)}`}
            >
              <path d="M4 26H216" class="stroke-base-300" />
              {#each x.ticks(4) as tick (tick)}<path d={`M${x(tick)} 26v-4`} class="stroke-quiet" />
                <text
                  x={x(tick)}
                  y="38"
                  text-anchor={tick === 0 ? "start" : "middle"}
                  class="fill-quiet text-[10.5px]">{Math.round(tick * 100)}{tick === 0 ? " % fat" : ""}</text
                >{/each}
              <rect
                x={x(known.prior.low_frac)}
                y="13"
                width={Math.max(1, x(known.prior.high_frac) - x(known.prior.low_frac))}
                height="9"
                fill="#efdcae"
                stroke="#b79b55"
                stroke-width="0.8"
              />
              <rect
                x={x(known.known.low_frac)}
                y="8"
                width={Math.max(1.5, x(known.known.high_frac) - x(known.known.low_frac))}
                height="9"
                class="fill-primary"
                fill-opacity="0.85"
              />
              <path d={`M${x(known.known.usual_frac)} 3v18`} stroke="#1b2327" stroke-width="2" />
            </svg>
            <p class="text-[0.8125rem]">
              <span class="numeral"
                ><Qty kind="fine_frac" value={known.known.usual_frac} /> fat,
                <Qty kind="frac" value={known.known.low_frac} high={known.known.high_frac} /></span
              >
              <span class="quiet"
                >{known.findings.length === 0
                  ? "by its name"
                  : known.findings.map((f) => kinds[f.evidence.kind]).join(", ")}</span
              >
            </p>
            {#if known.findings.some((f) => f.disagrees)}<p
                class="text-[0.8125rem] font-semibold text-warning"
              >
                Not like its name: look again
              </p>{/if}
          </div>
          <div class="flex flex-wrap gap-2">
            <button class="act text-sm" onclick={() => onlearn(lot.key)}
              >Add fat evidence<span class="sr-only"> {lot.name}</span></button
            >
            <button
              class="min-h-10 cursor-pointer rounded px-2 text-sm quiet hover:bg-base-200"
              onclick={() => onedit(known)}>Edit<span class="sr-only"> {lot.name}</span></button
            >
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</section>
