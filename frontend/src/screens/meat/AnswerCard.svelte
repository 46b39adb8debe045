<!-- One answer: the blend in small, its grams, fat, certainty and price, and what it leans on. -->
<script lang="ts">
  import type { Edit, Solved } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";

  let { bench, found, rank }: { bench: Bench; found: Solved["answers"][number]; rank: number } = $props();
  const answer = $derived(found.answer);
  // As in the large picture: width is share, the pale part of a strip its fat.
  const strips = $derived.by(() => {
    let from = 0;
    return answer.shares_frac.map((share, at) => {
      const strip = { from, share, fat: answer.usual_fats_frac[at] ?? 0 };
      from += share;
      return strip;
    });
  });
  const edit = $derived<Edit>({ kind: "lay-out", meats: answer.meats, shares_frac: answer.shares_frac });
</script>

<li class="border-t-2 border-base-content bg-paper p-3" data-answer={rank}>
  <div class="flex flex-wrap items-start gap-x-6 gap-y-2">
    <p class="text-[1.4375rem] leading-tight numeral">{rank}</p>
    <div class="min-w-56 flex-1">
      <svg viewBox="0 0 300 24" preserveAspectRatio="none" class="block h-6 w-full" aria-hidden="true">
        {#each strips as s, at (at)}
          <rect x={s.from * 300} width={Math.max(0, s.share * 300 - 1)} height="24" class="fill-lean" />
          <rect
            x={s.from * 300}
            y={24 - s.fat * 24}
            width={Math.max(0, s.share * 300 - 1)}
            height={s.fat * 24}
            class="fill-fat"
          />
        {/each}
      </svg>
      <ul class="mt-1 flex flex-wrap gap-x-4">
        {#each answer.names as name, at (at)}
          <li>
            <span class="font-semibold">{name}</span>
            <span class="numeral"><Qty kind="mass_g" value={answer.masses_g[at] ?? 0} /></span>
            <span class="quiet"><Qty kind="fine_frac" value={answer.shares_frac[at] ?? 0} /></span>
            {#if (answer.packs[at] ?? 0) > 0}<span class="text-[0.8125rem] quiet"
                >{answer.packs[at]} {answer.packs[at] === 1 ? "pack" : "packs"}</span
              >{/if}
          </li>
        {/each}
      </ul>
    </div>
    <dl class="flex flex-wrap gap-x-6">
      <div>
        <dt class="text-[0.75rem] quiet">Fat</dt>
        <dd class="text-[1.0625rem] leading-tight numeral">
          <Qty kind="fine_frac" value={answer.fat_frac} />
        </dd>
        <dd class="text-[0.75rem] quiet">
          <Qty kind="frac" value={answer.fat_low_frac} high={answer.fat_high_frac} />
        </dd>
      </div>
      <div>
        <dt class="text-[0.75rem] quiet">In the band</dt>
        <dd class="text-[1.0625rem] leading-tight numeral">
          <Qty kind="frac" value={answer.chance_in_band} />
        </dd>
        <dd class="text-[0.75rem] quiet">of batches</dd>
      </div>
      <div>
        <dt class="text-[0.75rem] quiet">A kilo in the bowl</dt>
        <dd class="text-[1.0625rem] leading-tight numeral">
          <Qty kind="price_per_kg" value={answer.price_per_kg} />
        </dd>
        {#if answer.first_use_by}<dd class="text-[0.75rem] quiet">use by {answer.first_use_by}</dd>{/if}
      </div>
    </dl>
    <button type="button" class="act" onclick={() => bench.edit(edit)}
      >Lay it out<span class="sr-only">: answer {rank}</span></button
    >
  </div>
  {#if found.binding.length > 0}
    <ul class="mt-1.5 text-[0.875rem] quiet">
      {#each found.binding as text, at (at)}<li><Say {text} />.</li>{/each}
    </ul>
  {/if}
</li>
