<!-- The panade on a scale of liquid to crumb: dry, damp, stiff, soft, soup; the marker moves the liquid. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    evaluation: Evaluation;
    onworking: (working: string) => void;
  }
  let { bench, evaluation, onworking }: Props = $props();
  const panade = $derived(evaluation.mix.panade);
  // The marker counts milk and water; an egg or a ricotta is drunk as well.
  const drinks = $derived(panade.wet_ratio >= (panade.edges[0] ?? 0));
  const words = $derived({
    none: "no panade",
    dry: drinks ? "dry, but for the water of egg and the like" : "dry: it will drink the meat’s juice",
    damp: "damp crumbs",
    stiff: "a stiff paste",
    soft: "a soft paste",
    soup: "soup: it will not hold a shape",
  } as const);
  const fills = ["#efece4", "#e6d9bd", "#d9bf83", "#c9a05a", "#9fb2b5"];
  const titles = ["dry", "damp", "stiff", "soft", "soup"];
  let width = $state(720);
  let held = $state<number | null>(null);
  const reach = $derived(Math.max(panade.edges[3] * 1.35, panade.ratio * 1.1));
  const most = $derived(held ?? reach);
  const x = $derived(scaleLinear([0, most], [8, Math.max(80, width - 8)]));
  const zones = $derived(
    [0, ...panade.edges]
      .map((from, at) => ({ from, to: at < 4 ? (panade.edges[at] ?? most) : most, at }))
      .filter((z) => z.to > z.from + 1e-9),
  );
  const number = (value: number) => amount({ kind: "number", value }, units);
  const steps = $derived(
    [
      { state: "stiff", grams: panade.to_stiff_g },
      { state: "soft", grams: panade.to_soft_g },
    ]
      .filter((s) => s.state !== panade.state)
      .map((s) => {
        const g = amount({ kind: "mass_g", value: Math.abs(s.grams) }, units);
        return `${s.grams < 0 ? "−" : "+"}${g} of milk for a ${s.state} paste`;
      })
      .join(", "),
  );
  const off = $derived((panade.state === "dry" && !drinks) || panade.state === "soup");

  function to(px: number): void {
    const at = Math.max(0, Math.min(most, x.invert(px)));
    bench.edit({ kind: "set", figure: "panade", value: Math.round(at * 20) / 20, item: "" });
  }
</script>

<section aria-label="Panade" class="mt-3 border-t border-base-300 pt-2.5">
  <div class="flex flex-wrap items-baseline justify-between gap-x-5">
    <h2 class="text-base">
      Panade: <button
        class={[
          "cursor-pointer underline decoration-base-300 decoration-2 underline-offset-4",
          off && "text-warning",
        ]}
        onclick={() => onworking("panade")}>{words[panade.state]}</button
      >
    </h2>
    <p class="text-[0.875rem] quiet">
      <Qty kind="mass_g" value={panade.crumb_g} /> crumb, <Qty kind="mass_g" value={panade.liquid_g} /> liquid
      {#if panade.soak_needed_min > 0}· soak <Qty kind="minutes" value={panade.soak_needed_min} />{/if}
    </p>
  </div>
  <div class="relative mt-1" bind:clientWidth={width}>
    <svg {width} height="72" class="block select-none" aria-hidden="true">
      {#each zones as zone (zone.at)}
        <rect x={x(zone.from)} y="20" width={x(zone.to) - x(zone.from)} height="24" fill={fills[zone.at]} />
        {#if x(zone.to) - x(zone.from) > 34}
          <text
            x={(x(zone.from) + x(zone.to)) / 2}
            y="14"
            text-anchor="middle"
            class="fill-base-content text-[12.5px]">{titles[zone.at]}</text
          >
        {/if}
        {#if zone.from > 0}
          <path d={`M${x(zone.from)} 20v29`} class="stroke-quiet" />
          <text x={x(zone.from)} y="62" text-anchor="middle" class="fill-quiet text-[11.5px]"
            >{number(zone.from)}</text
          >
        {/if}
      {/each}
    </svg>
    <DragHandle
      label="Liquid to one of crumb"
      high={Number(most.toFixed(2))}
      now={Number(panade.ratio.toFixed(2))}
      text={`${number(panade.ratio)} parts to one: ${words[panade.state]}`}
      left={x(panade.ratio)}
      top={13}
      height={38}
      ondrag={to}
      onhold={(on) => (held = on ? reach : null)}
      onnudge={(steps) => bench.edit({ kind: "nudge", figure: "panade", steps, item: "" })}
    />
  </div>
  <p class="text-[0.8125rem] quiet">
    Parts of liquid, computed as milk, to one of this crumb: now {number(panade.ratio)}. {steps}.
  </p>
</section>
{#if bench.refusal?.target === "panade"}
  <p role="alert" class="mt-1 text-sm text-error">{bench.refusal.detail}</p>
{/if}
