<!-- A batch that came out too lean or too fat: what, and how much of it, brings it right. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type Addition } from "../../lib/api/client";
  import { amount, percent } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { StepProps } from "../step";

  let { evaluation }: StepProps = $props();
  let batch = $state(
    untrack(() => amount({ kind: "mass_g", value: evaluation.portions.batch_mass_g }, units)),
  );
  let fat = $state(untrack(() => amount({ kind: "fine_frac", value: evaluation.blend.fat_frac }, units)));
  let target = $state("");
  let found = $state.raw<Addition[] | null>(null);
  let refusal = $state.raw<{ pointer: string; detail: string } | null>(null);
  const at = (name: string) => (refusal?.pointer.endsWith(name) ? refusal.detail : null);

  async function look(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      found = (await api.mend(batch, fat, target, units.system)).additions;
      refusal = null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      found = null;
      refusal = { pointer: error.problem.fields?.[0]?.pointer ?? "", detail: error.problem.detail };
    }
  }
</script>

<form class="flex flex-wrap items-start gap-x-4 gap-y-3" onsubmit={look}>
  <TextField
    label="The batch weighs"
    width="8rem"
    value={batch}
    oninput={(t) => (batch = t)}
    refused={at("batch")}
  />
  <TextField label="Its fat" width="6rem" value={fat} oninput={(t) => (fat = t)} refused={at("/fat")} />
  <TextField
    label="Fat wanted"
    width="6rem"
    placeholder="20 %"
    value={target}
    oninput={(t) => (target = t)}
    refused={at("target")}
  />
  <button class="mt-[1.3rem] act-main min-h-[2.625rem] py-1">What to add</button>
</form>
{#if refusal && !at("batch") && !at("/fat") && !at("target")}<p role="alert" class="mt-3 text-error">
    {refusal.detail}
  </p>{/if}
{#if found}
  {#if found.length === 0}
    <p class="mt-4">
      Nothing in the larder lies on the far side of that target: no addition can bring it there.
    </p>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="relative mt-4 max-h-[26rem] max-w-2xl overflow-y-auto"
      tabindex="0"
      role="region"
      aria-label="Additions"
    >
      <table class="w-full text-[0.9375rem]">
        <thead>
          <tr class="border-b border-base-300 text-left text-[0.75rem] quiet">
            <th class="py-1 font-normal">Add, trimmed</th><th class="px-2 font-normal">of</th><th
              class="px-2 text-right font-normal">Then it weighs</th
            ><th class="px-2 text-right font-normal">Fat</th><th class="px-2 text-right font-normal">Costs</th
            >
          </tr>
        </thead>
        <tbody>
          {#each found as a, at (at)}
            <tr class={["border-b border-base-300", a.more_than_the_batch && "quiet"]}>
              <td class="py-1.5 text-[1.0625rem] numeral"><Qty kind="mass_g" value={a.add_mass_g} /></td>
              <td class="px-2"
                >{a.name}{#if a.more_than_the_batch}<span class="block text-[0.75rem]"
                    >more than the batch itself</span
                  >{/if}</td
              >
              <td class="px-2 text-right numeral"><Qty kind="mass_g" value={a.total_mass_g} /></td>
              <td class="px-2 text-right numeral">{percent(a.fat_frac)}</td>
              <td class="px-2 text-right numeral"><Qty kind="money" value={Number(a.cost)} /></td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="mt-2 text-[0.8125rem] quiet">
      x = m (f − t) ÷ (c − t): batch, its fat, the target, the candidate’s usual fat. Fry a teaspoon before
      the rest.
    </p>
  {/if}
{/if}
