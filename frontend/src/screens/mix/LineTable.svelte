<!-- Every line: swapped for its like, typed in any measure, held, counted in whole pieces, taken out. -->
<script lang="ts">
  import Lock from "@lucide/svelte/icons/lock";
  import LockOpen from "@lucide/svelte/icons/lock-open";
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { Catalogue, Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import ValueField from "../../lib/ui/ValueField.svelte";

  let { bench, evaluation, catalogue }: { bench: Bench; evaluation: Evaluation; catalogue: Catalogue } =
    $props();
  const lines = $derived(evaluation.mix.lines);
  const used = $derived(new Set(lines.map((l) => l.ingredient)));
  const household = (key: string) =>
    bench.sheets.value?.weigh_out.lines.find((w) => w.ingredient === key)?.household ?? "";
  // Household measures stand beside the grams; they come a moment later.
  $effect(() => (bench.formula ? bench.sheets.ask(bench.formula) : undefined));
  const like = (group: string, now: string) =>
    catalogue.pantry.filter((i) => i.key === now || (i.group === group && !used.has(i.key) && !i.retired));
</script>

{#if lines.length > 0}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative mt-3 overflow-x-auto" tabindex="0" role="region" aria-label="Lines of the mix">
    <table class="w-full min-w-[36rem] text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-300 text-left text-[0.75rem] whitespace-nowrap quiet">
          <th class="py-1 pr-2 font-normal">Ingredient</th>
          <th class="px-1 font-normal">Amount</th>
          <th class="px-2 text-right font-normal">To 100</th>
          <th class="px-2 font-normal">About</th>
          <th class="px-2 text-right font-normal">Salt it brings</th>
          <th class="px-1 font-normal">Goes in at</th>
          <th class="w-20"><span class="sr-only">Hold or take out</span></th>
        </tr>
      </thead>
      <tbody>
        {#each lines as line (line.ingredient)}
          <tr class="border-b border-base-300 align-middle">
            <td class="py-1 pr-2">
              <select
                class="h-8 w-full max-w-52 min-w-32 cursor-pointer rounded border border-transparent bg-transparent font-semibold hover:border-[#8b8f8a]"
                aria-label={`Swap ${line.name} for another`}
                title={line.remark}
                value={line.ingredient}
                onchange={(e) =>
                  bench.edit({
                    kind: "swap-ingredient",
                    ingredient: line.ingredient,
                    to: e.currentTarget.value,
                  })}
              >
                {#each like(line.group, line.ingredient) as thing (thing.key)}
                  <option value={thing.key}>{thing.name}{thing.house ? " (house)" : ""}</option>
                {/each}
              </select>
            </td>
            <td class="px-1 py-1"
              ><ValueField
                {bench}
                bare
                figure="line"
                item={line.ingredient}
                label={`Amount of ${line.name}`}
                kind="mass_g"
                value={line.mass_g}
                width="6rem"
              />{#if line.unsure}<span
                  class="block text-center text-[0.75rem] leading-tight text-warning narrow"
                  ><Qty kind="mass_g" value={line.low_g} high={line.high_g} /></span
                >{/if}</td
            >
            <td class="px-2 py-1 text-right whitespace-nowrap narrow"
              ><Qty kind="per_hundred" value={line.per_meat_frac} /></td
            >
            <td class="px-2 py-1 whitespace-nowrap quiet narrow">{household(line.ingredient)}</td>
            <td class="px-2 py-1 text-right whitespace-nowrap narrow"
              >{#if line.salt_g >= 0.05}<Qty kind="mass_g" value={line.salt_g} />{:else}<span class="quiet"
                  >–</span
                >{/if}</td
            >
            <td class="px-1 py-1"
              ><ValueField
                {bench}
                bare
                figure="line_temp"
                item={line.ingredient}
                label={`Temperature of ${line.name}`}
                kind="temp_c"
                value={line.temp_c}
                width="4.25rem"
              /></td
            >
            <td class="py-1 text-right whitespace-nowrap">
              <button
                class={[
                  "inline-grid size-8 cursor-pointer place-items-center rounded hover:bg-base-200",
                  line.locked ? "bg-primary text-primary-content hover:bg-primary" : "text-quiet",
                ]}
                aria-pressed={line.locked}
                aria-label={`Hold ${line.name}`}
                title={line.locked ? "Held: let it go" : "Hold it when the school or its group moves"}
                onclick={() =>
                  bench.edit({ kind: "hold-line", ingredient: line.ingredient, locked: !line.locked })}
              >
                {#if line.locked}<Lock size={16} />{:else}<LockOpen size={16} />{/if}
              </button>
              <button
                class="inline-grid size-8 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200"
                aria-label={`Take out ${line.name}`}
                title="Take out"
                onclick={() => bench.edit({ kind: "take-out", ingredient: line.ingredient })}
                ><Trash size={16} /></button
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
