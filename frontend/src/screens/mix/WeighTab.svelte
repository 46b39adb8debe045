<!-- Weighing out: what the scale shows, eggs in whole, a pinch by the spoon; and the bowl weighed by eye. -->
<script lang="ts">
  import { percent } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { SheetProps } from "../step";
  import ByEyeSheet from "./ByEyeSheet.svelte";

  let { bench, evaluation, catalogue, onworking, sheets }: SheetProps = $props();
  const out = $derived(sheets.weigh_out);
  const counted = $derived(new Set(evaluation.mix.lines.filter((l) => l.counted).map((l) => l.ingredient)));
  const inPieces = ["egg", "white", "filling", "bread"];
  const canCount = $derived(
    new Set(evaluation.mix.lines.filter((l) => inPieces.includes(l.group)).map((l) => l.ingredient)),
  );
  const signed = (frac: number) => `${frac > 0 ? "+" : "−"}${percent(Math.abs(frac))}`;
  let byEye = $state(false);
</script>

<div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
  <div class="flex flex-wrap gap-x-7 gap-y-3">
    <Fact label="Meat"><Qty kind="mass_g" value={out.meat_g} /></Fact>
    <Fact label="The bowl comes to" onclick={() => onworking("weigh_out")}
      ><Qty kind="mass_g" value={out.comes_to_g} /></Fact
    >
    <Fact label="Off what is wanted" onclick={() => onworking("weigh_out")}
      >{Math.abs(out.off_frac) < 0.0005 ? "nothing" : signed(out.off_frac)}</Fact
    >
    {#if out.worst && Math.abs(out.worst_frac) >= 0.0005}
      <Fact label="Furthest off">{out.worst.toLowerCase()} {signed(out.worst_frac)}</Fact>
    {/if}
  </div>
  <button class="act" onclick={() => (byEye = true)}>By eye: weigh the bowl</button>
</div>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="relative mt-3 overflow-x-auto" tabindex="0" role="region" aria-label="Weighing out">
  <table class="w-full min-w-[34rem]">
    <thead>
      <tr class="border-b border-base-300 text-left text-[0.75rem] whitespace-nowrap quiet">
        <th class="py-1 font-normal">What</th>
        <th class="px-2 text-right font-normal">Measure</th>
        <th class="px-2 font-normal">About</th>
        <th class="px-2 text-right font-normal">Exactly</th>
        <th class="px-2 text-right font-normal">Off by</th>
        <th class="w-28"><span class="sr-only">Count or weigh</span></th>
      </tr>
    </thead>
    <tbody>
      {#each evaluation.blend.parts as part (part.meat)}
        <tr class="border-b border-base-300">
          <td class="py-1.5 font-semibold">{part.name}</td>
          <td class="px-2 text-right text-[1.0625rem] numeral whitespace-nowrap"
            ><Qty kind="mass_g" value={part.mass_g} /></td
          >
          <td colspan="4"></td>
        </tr>
      {/each}
      {#each out.lines as line (line.ingredient || "salt")}
        <tr class="border-b border-base-300">
          <td class="py-1.5 font-semibold">{line.name}</td>
          <td class="px-2 text-right text-[1.0625rem] numeral whitespace-nowrap">
            {#if line.how === "pieces"}{line.household}{:else if line.how === "spoon"}{line.household}{:else}<Qty
                kind="mass_g"
                value={line.measured_g}
              />{/if}
          </td>
          <td class="px-2 whitespace-nowrap quiet narrow"
            >{#if line.how === "pieces" || line.how === "spoon"}<Qty
                kind="mass_g"
                value={line.measured_g}
              />{:else if line.how === "fine-scale"}a finer scale{:else}{line.household}{/if}</td
          >
          <td class="px-2 text-right whitespace-nowrap quiet narrow"
            ><Qty kind="mass_g" value={line.exact_g} /></td
          >
          <td
            class={[
              "px-2 text-right whitespace-nowrap narrow",
              Math.abs(line.error_frac) > 0.05 ? "text-warning" : "quiet",
            ]}>{Math.abs(line.error_frac) < 0.0005 ? "–" : signed(line.error_frac)}</td
          >
          <td class="text-right">
            {#if line.ingredient && canCount.has(line.ingredient)}
              {@const on = counted.has(line.ingredient)}
              <button
                class="min-h-9 cursor-pointer rounded px-2 text-sm whitespace-nowrap text-primary hover:bg-base-200"
                onclick={() => bench.edit({ kind: "count-line", ingredient: line.ingredient, counted: !on })}
                >{on ? "Weigh it" : "Keep whole"}<span class="sr-only">: {line.name}</span></button
              >
            {/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<p class="mt-2 text-[0.75rem] quiet">
  On the scale’s step, so that these lines still sum; what half a step would change by more than 5 % is
  measured by the spoon. The figures on the other tabs are exact.
</p>
{#if byEye}<ByEyeSheet {bench} {evaluation} {catalogue} onclose={() => (byEye = false)} />{/if}
