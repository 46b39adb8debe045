<!-- The Pearson square, drawn as it is drawn on paper: fats left, target in the middle, parts across. -->
<script lang="ts">
  import { onMount } from "svelte";
  import { api, ProblemError, type DrawnSquare } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";

  let { bench, evaluation, catalogue, formula }: StepProps = $props();
  let one = $state("");
  let two = $state("");
  let target = $state("");
  let drawn = $state.raw<DrawnSquare | null>(null);
  let refusal = $state<string | null>(null);
  const lotOf = (meat: string) => evaluation.blend.parts.find((p) => p.meat === meat)?.lot ?? "";

  // The first pair and its target are the core's to choose; afterwards they are the cook's. Nothing can be picked or
  // typed before, or it would be overwritten.
  let ready = $state(false);
  onMount(() => {
    api.firstSquare(formula).then(
      (first) => {
        one = first.one;
        two = first.two;
        target = amount({ kind: "fine_frac", value: first.target_frac }, units);
        ready = true;
      },
      (error: Error) => {
        refusal = error.message;
        ready = true;
      },
    );
  });
  $effect(() => {
    if (!one || !two) return;
    const ask = new AbortController();
    const candidate = (meat: string) => ({ meat, lot: lotOf(meat), least: "", most: "", now_frac: 0 });
    api.square(candidate(one), candidate(two), target, ask.signal).then(
      (answer) => ((drawn = answer), (refusal = null)),
      (error: unknown) => {
        if (error instanceof DOMException) return;
        drawn = null;
        refusal = error instanceof ProblemError ? error.problem.detail : "The square cannot be drawn.";
      },
    );
    return () => ask.abort();
  });
  const options = $derived(
    catalogue.meats.filter((m) => !m.retired).map((m) => ({ key: m.key, title: m.name })),
  );
  const pct = (value: number) => amount({ kind: "fine_frac", value }, units);
  const num = (value: number) => value.toFixed(1).replace(/\.0$/, "");
</script>

{#if !ready}<p class="quiet" aria-busy="true">Loading…</p>{/if}
<div class={["flex flex-wrap items-start gap-x-4 gap-y-3", ready ? "" : "hidden"]}>
  <PickField label="One meat" value={one} width="13rem" {options} onpick={(key) => (one = key)} />
  <PickField label="The other" value={two} width="13rem" {options} onpick={(key) => (two = key)} />
  <TextField
    label="Fat wanted"
    width="6.5rem"
    value={target}
    oninput={(t) => (target = t)}
    refused={drawn ? null : refusal}
  />
</div>
{#if drawn}
  {@const s = drawn.square}
  <svg
    viewBox="0 0 640 250"
    class="mt-4 block w-full max-w-2xl"
    role="img"
    aria-label={`Pearson square: ${drawn.lean_name} ${pct(s.lean_fat_frac)} and ${drawn.rich_name} ${pct(s.rich_fat_frac)} for ${pct(s.target_frac)}: ${num(s.lean_parts)} parts to ${num(s.rich_parts)}.`}
  >
    <rect
      x="150"
      y="30"
      width="230"
      height="190"
      fill="none"
      class="stroke-base-content"
      stroke-width="1.6"
    />
    <path
      d="M150 30L380 220M150 220L380 30"
      class="stroke-primary"
      stroke-width="1.6"
      stroke-dasharray="5 4"
    />
    <circle cx="265" cy="125" r="38" class="fill-base-100 stroke-primary" stroke-width="2" />
    <text x="265" y="132" text-anchor="middle" class="fill-primary text-[21px] numeral"
      >{pct(s.target_frac)}</text
    >
    <g text-anchor="end">
      <text x="138" y="26" class="fill-quiet text-[12.5px]">{drawn.lean_name}</text>
      <text x="138" y="48" class="fill-base-content text-[20px] numeral">{pct(s.lean_fat_frac)}</text>
      <text x="138" y="216" class="fill-quiet text-[12.5px]">{drawn.rich_name}</text>
      <text x="138" y="238" class="fill-base-content text-[20px] numeral">{pct(s.rich_fat_frac)}</text>
    </g>
    <g>
      <text x="392" y="36" class="fill-base-content text-[20px] numeral">{num(s.lean_parts)} parts</text>
      <text x="392" y="56" class="fill-quiet text-[12.5px]"
        >{num(s.rich_fat_frac * 100)} − {num(s.target_frac * 100)} → {pct(s.lean_share_frac)} of the blend</text
      >
      <text x="392" y="218" class="fill-base-content text-[20px] numeral">{num(s.rich_parts)} parts</text>
      <text x="392" y="238" class="fill-quiet text-[12.5px]"
        >{num(s.target_frac * 100)} − {num(s.lean_fat_frac * 100)} → {pct(s.rich_share_frac)} of the blend</text
      >
    </g>
  </svg>
  <p class="mt-1 max-w-2xl text-[0.875rem] quiet">
    Read across the corners: the fat of one less the target gives the parts of the other. Usual fats; the
    uncertainty shows when it is laid out.
  </p>
  <button
    class="mt-3 act-main"
    onclick={() =>
      drawn &&
      bench.edit({
        kind: "lay-out",
        meats: [drawn.lean, drawn.rich],
        shares_frac: [s.lean_share_frac, s.rich_share_frac],
      })}>Lay it out</button
  >
{/if}
