<!-- Short of time: whether it is on the plate within so many minutes, and the cheapest changes that bring it there. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Edit, type Formula, type ShortOfTime } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Search } from "../../lib/search.svelte";
  import { Told } from "../../lib/told.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import Looking from "../../lib/ui/Looking.svelte";
  import QuickField from "../heat/QuickField.svelte";

  interface Props {
    formula: Formula;
    currency: string;
    onedit: (edit: Edit) => void;
  }
  let { formula, currency, onedit }: Props = $props();
  const told = new Told();
  let minutes = $state(15);
  const asked = new Search<[Formula, number], ShortOfTime>(([now, within], signal, look) =>
    api.shortOfTime(now, within, units.system, look, signal),
  );
  $effect(() => asked.ask([formula, minutes]));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const type = (text: string) => told.read("time_s", text, (seconds) => (minutes = Math.round(seconds / 60)));
  const grams = (value: number) => amount({ kind: "mass_g", value }, units);
  const money = (value: string) =>
    amount({ kind: "money", value: Number(value) }, { system: units.system, currency });
</script>

<div class="mt-4 flex flex-wrap items-end gap-3">
  <QuickField label="On the plate within" value={`${minutes} min`} width="7.5rem" oncommit={type} />
  {#each [15, 30, 45, 60] as choice (choice)}
    <button class="act h-[2.625rem]" aria-pressed={minutes === choice} onclick={() => (minutes = choice)}
      >{choice} min</button
    >
  {/each}
</div>
{#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
<Looking search={asked} what="what would make it quicker" />
{#if asked.problem}<p role="alert" class="mt-3 max-w-[44rem] text-error">{asked.problem.detail}</p>
{:else if found && found.minutes === minutes}
  <div
    class="mt-4 max-w-[52rem]"
    data-short={found.fits ? "fits" : (found.ways[0]?.fits ?? false) ? "ways" : "none"}
  >
    <p
      class={[
        "text-[1.0625rem] leading-snug font-semibold",
        !found.fits && !found.ways[0]?.fits && "text-error",
      ]}
      role="status"
    >
      <Say text={found.says} />
    </p>
    {#each found.ways as way, n (n)}
      <section class="mt-4 border-t-2 border-base-content pt-2" aria-label={`Way ${n + 1}`}>
        <div class="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
          <ul class="min-w-0 grow basis-80">
            {#each way.shortcuts as shortcut (shortcut.key)}
              <li class="py-0.5 leading-snug">
                <span class="font-semibold"><Say text={shortcut.what} />.</span>
                <span class="quiet"><Say text={shortcut.costs} /></span>
              </li>
            {/each}
          </ul>
          <div class="sm:text-right">
            <div class="text-[1.1875rem] leading-tight numeral">
              <Qty kind="minutes" value={way.needs_min} />
            </div>
            <div class="text-[0.8125rem] quiet">
              {money(way.portion_cost)} a portion, was {money(found.portion_cost)}
            </div>
            {#if grams(way.cooked_g) !== grams(found.cooked_g)}<div class="text-[0.8125rem] quiet">
                <Qty kind="mass_g" value={way.cooked_g} /> a piece cooked, was
                <Qty kind="mass_g" value={found.cooked_g} />
              </div>{/if}
          </div>
        </div>
        {#if way.shortcuts.some((s) => s.edits.length > 0)}<button
            class="mt-1.5 act"
            onclick={() => {
              for (const edit of way.shortcuts.flatMap((s) => s.edits)) onedit(edit);
            }}>Change it so</button
          >{/if}
      </section>
    {/each}
    {#if found.shortcuts.length > 0}
      <h2 class="mt-6 text-[0.8125rem] quiet">What each saves by itself</h2>
      <dl class="mt-1 max-w-[30rem]" aria-label="What each saves by itself">
        {#each found.shortcuts as shortcut (shortcut.key)}
          <div class="flex justify-between gap-4 border-b border-base-300 py-1.5">
            <dt><Say text={shortcut.what} /></dt>
            <dd class="numeral"><Qty kind="minutes" value={shortcut.saves_min} /></dd>
          </div>
        {/each}
      </dl>
    {/if}
    <p class="mt-3 max-w-[44rem] text-[0.8125rem] leading-snug quiet">
      Each change is made on the formula, computed anew and put in time. Sauces that keep and jars are taken
      to be there; cooks are the formula's. What is given up first is common practice, no published source.
    </p>
  </div>
{:else if asked.busy && !asked.looking}<p class="mt-4 quiet" aria-busy="true">
    Trying what would make it quicker …
  </p>{/if}
