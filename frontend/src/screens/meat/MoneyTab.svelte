<!-- Names on a label, each with its limits and how often a batch would cross them; and from shop to bowl in money. -->
<script lang="ts">
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { StepProps } from "../step";

  let { bench, formula, evaluation, onworking }: StepProps = $props();
  $effect(() => bench.sheets.ask(formula));
  const kinds = { fat: "fat ≤", collagen: "collagen of protein ≤", beef: "beef ≥" } as const;
</script>

<section aria-label="Names">
  <h2 class="text-base">Names on a label</h2>
  <p class="text-[0.8125rem] quiet">
    {bench.sheets.value?.workings.names?.source} The kitchen picks the rule.
  </p>
  {#if evaluation.names.length > 0}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Names table">
      <table class="mt-1.5 w-full min-w-[34rem] text-[0.875rem]">
        <thead>
          <tr class="border-b border-base-300 text-left text-[0.75rem] quiet">
            <th class="py-1 font-normal">Name</th><th class="px-2 font-normal">This blend</th><th
              class="px-2 font-normal">Limit</th
            ><th class="px-2 text-right font-normal">Here</th><th class="px-2 text-right font-normal"
              >Margin, points</th
            ><th class="px-2 text-right font-normal">Batches over it</th>
          </tr>
        </thead>
        <tbody>
          {#each evaluation.names as name (name.name)}
            {#each name.tests.length > 0 ? name.tests : [null] as test, at (at)}
              <tr class={at === Math.max(0, name.tests.length - 1) ? "border-b border-base-300" : ""}>
                <td class="py-1.5 font-semibold">{at === 0 ? name.name : ""}</td>
                <td class="px-2 py-1.5"
                  >{#if at === 0}<span class={name.allowed ? "text-success" : "font-semibold text-error"}
                      >{name.allowed ? "✓" : "✕"} {name.verdict}</span
                    >{/if}</td
                >
                {#if test}
                  <td class="px-2 py-1.5">{kinds[test.kind]} <Qty kind="frac" value={test.limit_frac} /></td>
                  <td class="px-2 py-1.5 text-right numeral"
                    ><Qty kind="fine_frac" value={test.value_frac} /></td
                  >
                  <td class="px-2 py-1.5 text-right numeral">{(test.margin_frac * 100).toFixed(1)}</td>
                  <td class="px-2 py-1.5 text-right numeral"
                    ><Qty kind="frac" value={test.chance_failed} /></td
                  >
                {:else}<td class="px-2 py-1.5 quiet" colspan="4">no limit of fat</td>{/if}
              </tr>
            {/each}
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<section aria-label="Money and yield" class="mt-6">
  <h2 class="text-base">From shop to bowl</h2>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Money table">
    <table class="mt-1.5 w-full min-w-[38rem] text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-300 text-left text-[0.75rem] quiet">
          <th class="py-1 font-normal">Meat</th><th class="px-2 text-right font-normal">Bought</th><th
            class="px-2 text-right font-normal">Trimmed</th
          ><th class="px-2 text-right font-normal">In the bowl</th><th class="px-2 text-right font-normal"
            >Packs</th
          ><th class="px-2 text-right font-normal">Kilo bought</th><th class="px-2 text-right font-normal"
            >Kilo used</th
          ><th class="px-2 text-right font-normal">Cost</th>
        </tr>
      </thead>
      <tbody>
        {#each evaluation.cost.parts as line, at (line.meat)}
          <tr class="border-b border-base-300">
            <td class="py-1.5 font-semibold">{evaluation.blend.parts[at]?.name}</td>
            <td class="px-2 text-right numeral"><Qty kind="mass_g" value={line.bought_g} /></td>
            <td class="px-2 text-right numeral"><Qty kind="mass_g" value={line.trimmed_g} /></td>
            <td class="px-2 text-right numeral"><Qty kind="mass_g" value={line.used_g} /></td>
            <td class="px-2 text-right numeral">{line.packs || ""}</td>
            <td class="px-2 text-right numeral"
              ><Qty kind="price_per_kg" value={Number(line.price_per_kg)} /></td
            >
            <td class="px-2 text-right numeral"
              ><Qty kind="price_per_kg" value={Number(line.price_per_kg_used)} /></td
            >
            <td class="px-2 text-right numeral"><Qty kind="money" value={Number(line.cost)} /></td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <div class="mt-4 flex flex-wrap gap-x-8 gap-y-3">
    <Fact label="A kilo in the bowl" onclick={() => onworking("cost")}
      ><Qty kind="price_per_kg" value={Number(evaluation.cost.blend_price_per_kg)} /></Fact
    >
    <Fact label="Meat for the batch"><Qty kind="money" value={Number(evaluation.cost.meat_cost)} /></Fact>
    <Fact label="Buns"><Qty kind="money" value={Number(evaluation.cost.bun_cost)} /></Fact>
    <Fact label="A portion" onclick={() => onworking("cost")}
      ><Qty kind="money" value={Number(evaluation.cost.portion_cost)} /></Fact
    >
  </div>
  <p class="mt-3 text-[0.8125rem] quiet">
    Two cuts compare by the kilo used. What price would swap one for another stands under “Reach a target”.
  </p>
</section>
