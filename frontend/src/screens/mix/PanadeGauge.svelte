<!-- The panade on a scale of liquid to crumb: dry, damp, stiff, soft, soup; the marker moves the liquid. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    bench: Bench;
    evaluation: Evaluation;
    onworking: (working: string) => void;
  }
  let { bench, evaluation, onworking }: Props = $props();
  const panade = $derived(evaluation.mix.panade);
  const words = {
    none: "no panade",
    dry: "dry: it will drink the meat’s juice",
    damp: "damp crumbs",
    stiff: "a stiff paste",
    soft: "a soft paste",
    soup: "soup: it will not hold a shape",
  } as const;
  const fills = ["#efece4", "#e6d9bd", "#d9bf83", "#c9a05a", "#9fb2b5"];
  const titles = ["dry", "damp", "stiff", "soft", "soup"];
  let width = $state(720);
  let dragging = $state(false);
  let box: HTMLElement;
  const most = $derived(Math.max(panade.edges[3] * 1.35, panade.ratio * 1.1));
  const x = $derived(scaleLinear([0, most], [8, Math.max(80, width - 8)]));
  const zones = $derived(
    [0, ...panade.edges]
      .map((from, at) => ({ from, to: at < 4 ? (panade.edges[at] ?? most) : most, at }))
      .filter((z) => z.to > z.from + 1e-9),
  );
  const number = (value: number) => amount({ kind: "number", value }, units);
  const change = (state: string, grams: number) =>
    `${state === "stiff" ? "A stiff" : "a soft"} paste: ${grams < 0 ? "−" : "+"}${amount({ kind: "mass_g", value: Math.abs(grams) }, units)} of milk`;
  const off = $derived(panade.state === "dry" || panade.state === "soup");

  function to(clientX: number): void {
    const at = Math.max(0, Math.min(most, x.invert(clientX - box.getBoundingClientRect().left)));
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
  <div class="relative mt-1" bind:clientWidth={width} bind:this={box}>
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
    <div
      role="slider"
      tabindex="0"
      aria-label="Liquid to one of crumb"
      aria-valuemin={0}
      aria-valuemax={Number(most.toFixed(2))}
      aria-valuenow={Number(panade.ratio.toFixed(2))}
      aria-valuetext={`${number(panade.ratio)} parts to one: ${words[panade.state]}`}
      class="absolute top-[10px] h-11 w-11 -translate-x-1/2 cursor-ew-resize touch-none"
      style:left={`${x(panade.ratio)}px`}
      onpointerdown={(e) => {
        dragging = true;
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onpointermove={(e) => dragging && to(e.clientX)}
      onpointerup={() => (dragging = false)}
      onpointercancel={() => (dragging = false)}
      onkeydown={(e) => {
        const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
        if (!way) return;
        e.preventDefault();
        e.stopPropagation();
        bench.edit({ kind: "nudge", figure: "panade", steps: way, item: "" });
      }}
    >
      <span
        aria-hidden="true"
        class={[
          "absolute top-1 left-1/2 h-8 w-[13px] -translate-x-1/2 rounded-[3px] border-[2.5px] border-primary",
          dragging ? "bg-primary" : "bg-paper",
        ]}
      ></span>
    </div>
  </div>
  <p class="text-[0.8125rem] quiet">
    Parts of liquid, reckoned as milk, to one of this crumb: now {number(panade.ratio)}. {change(
      "stiff",
      panade.to_stiff_g,
    )}; {change("soft", panade.to_soft_g)}.
  </p>
</section>
{#if bench.refusal?.target === "panade"}
  <p role="alert" class="mt-1 text-sm text-error">{bench.refusal.detail}</p>
{/if}
