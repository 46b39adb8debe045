<!-- The blend as a table: share and grams can be typed and nudged, a meat swapped, locked or taken out. -->
<script lang="ts">
  import Lock from "@lucide/svelte/icons/lock";
  import LockOpen from "@lucide/svelte/icons/lock-open";
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { Catalogue, Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { today } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";

  let { bench, evaluation, catalogue }: { bench: Bench; evaluation: Evaluation; catalogue: Catalogue } =
    $props();
  const parts = $derived(evaluation.blend.parts);
  const used = $derived(new Set(parts.map((p) => p.meat)));
  const cost = (key: string) => evaluation.cost.parts.find((p) => p.meat === key);
  const lots = (meat: string, now: string) =>
    catalogue.lots.filter((l) => l.meat === meat && (!l.closed || l.key === now));
  const day = today();
  const width = $derived((evaluation.blend.fat_high_frac - evaluation.blend.fat_low_frac) * 100);
  const points = (frac: number) => (frac * 100).toFixed(1);
</script>

<div class="relative mt-2 overflow-x-auto">
  <table class="w-full min-w-[34rem] text-[0.875rem]">
    <thead>
      <tr class="border-b border-base-300 text-left text-[0.75rem] quiet">
        <th class="py-1 pr-2 font-normal">Meat</th>
        <th class="px-1 font-normal">Share</th>
        <th class="px-1 font-normal">Weight</th>
        <th class="px-2 text-right font-normal whitespace-nowrap">Fat, usual (range)</th>
        <th class="px-2 text-right font-normal">Kilo used</th>
        <th class="px-2 text-right font-normal whitespace-nowrap">Uncertainty, and if tested</th>
        <th class="w-20"><span class="sr-only">Lock or take out</span></th>
      </tr>
    </thead>
    <tbody>
      {#each parts as part (part.meat)}
        <tr class="border-b border-base-300 align-middle">
          <td class="py-1 pr-2">
            <select
              class="h-8 w-full max-w-48 min-w-32 cursor-pointer rounded border border-transparent bg-transparent font-semibold hover:border-[#8b8f8a]"
              aria-label={`Swap ${part.name} for another meat`}
              value={part.meat}
              onchange={(e) => bench.edit({ kind: "swap-meat", meat: part.meat, to: e.currentTarget.value })}
            >
              {#each catalogue.meats.filter((m) => m.key === part.meat || (!used.has(m.key) && !m.retired)) as meat (meat.key)}
                <option value={meat.key}>{meat.name}</option>
              {/each}
            </select>
            {#if lots(part.meat, part.lot).length > 0}
              <select
                class="block h-7 max-w-48 cursor-pointer rounded border border-transparent bg-transparent pl-0.5 text-[0.8125rem] quiet hover:border-[#8b8f8a]"
                aria-label={`Lot of ${part.name}`}
                value={part.lot}
                onchange={(e) =>
                  bench.edit({ kind: "pick-lot", meat: part.meat, lot: e.currentTarget.value })}
              >
                <option value="">from any lot</option>
                {#each lots(part.meat, part.lot) as lot (lot.key)}<option value={lot.key}
                    >{lot.name}{lot.use_by && lot.use_by < day ? " (past its day)" : ""}</option
                  >{/each}
              </select>
            {/if}
          </td>
          <td class="px-1 py-1"
            ><ValueField
              {bench}
              bare
              figure="share"
              item={part.meat}
              label={`Share of ${part.name}`}
              kind="fine_frac"
              value={part.share_frac}
              width="4.75rem"
            /></td
          >
          <td class="px-1 py-1"
            ><ValueField
              {bench}
              bare
              figure="part_mass"
              item={part.meat}
              label={`Weight of ${part.name}`}
              kind="mass_g"
              value={part.mass_g}
              width="6.25rem"
            /></td
          >
          <td class="px-2 py-2 text-right whitespace-nowrap narrow"
            ><Qty kind="frac" value={part.fat_usual_frac} /> (<Qty
              kind="frac"
              value={part.fat_low_frac}
              high={part.fat_high_frac}
            />)</td
          >
          <td class="px-2 py-2 text-right narrow"
            ><Qty kind="price_per_kg" value={Number(cost(part.meat)?.price_per_kg_used ?? 0)} /></td
          >
          <td class="px-2 py-2 text-right whitespace-nowrap narrow"
            ><Qty kind="frac" value={part.uncertainty_share_frac} />
            <span
              class="quiet"
              title={`One fat test of ${part.name} would narrow the blend from ${width.toFixed(1)} to ${points(part.tested_width_frac)} points`}
              >{width.toFixed(1)} → {points(part.tested_width_frac)} pt</span
            ></td
          >
          <td class="py-1 text-right whitespace-nowrap">
            <button
              class={[
                "inline-grid size-8 cursor-pointer place-items-center rounded hover:bg-base-200",
                part.locked ? "bg-primary text-primary-content hover:bg-primary" : "text-quiet",
              ]}
              aria-pressed={part.locked}
              aria-label={`Lock the share of ${part.name}`}
              title={part.locked ? "Locked: let it go" : "Hold this share"}
              onclick={() => bench.edit({ kind: "lock-meat", meat: part.meat, locked: !part.locked })}
            >
              {#if part.locked}<Lock size={16} />{:else}<LockOpen size={16} />{/if}
            </button>
            <button
              class="inline-grid size-8 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200 disabled:opacity-30"
              aria-label={`Take out ${part.name}`}
              title="Take out"
              disabled={parts.length === 1}
              onclick={() => bench.edit({ kind: "remove-meat", meat: part.meat })}><Trash size={16} /></button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
