<!-- What a word proposes, or what can take the place of what cannot be had: taken with one tap. -->
<script lang="ts">
  import type { Handle } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { TasteBench } from "./taste.svelte";

  interface Props {
    tasting: TasteBench;
    handles: { key: Handle; title: string }[];
    nameOf: (key: string) => string;
  }
  let { tasting, handles, nameOf }: Props = $props();
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  const signed = (value: number) =>
    `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(Math.abs(value) < 0.1 ? 2 : 1)} g`;
  function take(): void {
    const proposed = tasting.proposed;
    const word = handles.find((h) => h.key === proposed?.handle)?.title ?? "";
    const moved = proposed?.answer.nudge?.moved ?? [];
    tasting.take(
      `${word}: ${moved.map((m) => `${signed(m.change_g)} ${nameOf(m.ingredient).toLowerCase()}`).join(", ")}`,
    );
  }

  const grams = (added: readonly (readonly [string, number])[]) =>
    added.map(([key, g]) => `${mass(g)} ${nameOf(key).toLowerCase()}`).join(", ");
</script>

{#if tasting.proposed}
  <div class="my-3 border-l-4 border-primary pl-3" role="status" data-proposal>
    {#if tasting.proposed.answer.nudge}
      <h2 class="text-base">
        {handles.find((h) => h.key === tasting.proposed?.handle)?.title}: {#each tasting.proposed.answer.nudge.moved as m, n (m.ingredient)}{n
            ? ", "
            : ""}{signed(m.change_g)}
          {nameOf(m.ingredient).toLowerCase()}{/each}
      </h2>
      <p class="text-[0.875rem]">
        {#if tasting.proposed.answer.nudge.gave_way.length > 0}It also moves {tasting.proposed.answer.nudge.gave_way.join(
            ", ",
          )} by more than a tongue would miss.{:else}Everything else stays as it is.{/if}
      </p>
      <div class="mt-2 flex gap-2">
        <button class="act act-main" onclick={take}>Do it</button>
        <button class="act" onclick={() => (tasting.proposed = null)}>Leave it</button>
      </div>
    {:else}
      <p class="text-[0.9375rem]">
        No change makes it so without making it another sauce. Let a held line go, or add something new.
      </p>
    {/if}
    {#if tasting.proposed.answer.starch}
      {@const starch = tasting.proposed.answer.starch}
      <p class="mt-3 border-t border-base-300 pt-2 text-[0.9375rem]" data-starch>
        Or bind it: <strong>{mass(starch.cornflour_g)} cornflour</strong> in {mass(starch.cold_water_g)} cold water,
        <Qty kind="minutes" value={starch.minutes.low} high={starch.minutes.high} /> at a simmer. Its taste stays.
      </p>
      <button
        class="mt-1 act"
        onclick={() => tasting.bind(starch, `Bound with ${mass(starch.cornflour_g)} cornflour`)}
        >Bind it</button
      >
    {/if}
  </div>
{/if}
{#if tasting.offers}
  {@const gone = nameOf(tasting.offers.ingredient).toLowerCase()}
  <div class="my-3 border-l-4 border-primary pl-3" role="status" data-offers>
    <h2 class="text-base">Instead of {gone}</h2>
    <ul>
      {#each tasting.offers.offers as offer (offer.swapped.ingredient)}
        <li class="flex flex-wrap items-center justify-between gap-x-4 border-t border-base-300 py-1.5">
          <span class="min-w-0 flex-1 basis-56"
            ><span class="font-semibold">{grams(offer.swapped.added)}</span><span
              class="block text-[0.8125rem] quiet"
              >{offer.swapped.missed.length === 0
                ? "A tongue would miss nothing these figures show."
                : `Misses its ${offer.swapped.missed.join(", ")}.`}</span
            ></span
          >
          <button
            class="act"
            onclick={() => tasting.swap(offer, `For ${gone}: ${grams(offer.swapped.added)}`)}>Take it</button
          >
        </li>
      {:else}<li class="py-1 text-[0.9375rem]">
          Nothing in the pantry comes near it: leave it out and nudge.
        </li>{/each}
    </ul>
    <button class="mt-1 act" onclick={() => (tasting.offers = null)}>Leave it</button>
  </div>
{/if}
