<!-- What there is to grind with; each can be corrected: its load, its pace, what stays in it, its plates. -->
<script lang="ts">
  import type { Kitchen } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import GrinderSheet from "./GrinderSheet.svelte";

  type Grinder = NonNullable<Kitchen["grinders"]>[number];
  interface Props {
    grinders: Grinder[];
    problem: string | null;
    onsave: (grinders: Grinder[]) => Promise<boolean>;
  }
  let { grinders, problem, onsave }: Props = $props();
  let at = $state<number | null>(null);
</script>

<section class="mt-7" aria-label="Grinders">
  <div class="flex flex-wrap items-end justify-between gap-3">
    <h2 class="text-lg">To grind with</h2>
    <button class="act text-sm" onclick={() => (at = grinders.length)}>Add a tool</button>
  </div>
  <div class="relative overflow-x-auto">
    <table class="mt-1 w-full min-w-[34rem]">
      <thead class="sr-only"
        ><tr><th>Tool</th><th>Plates</th><th>Load</th><th>Stays in it</th><th>Correct</th></tr></thead
      >
      <tbody>
        {#each grinders as g, index (g.key)}
          <tr class="border-b border-base-300">
            <td class="py-1.5 font-semibold">{g.name}</td>
            <td class="px-3 py-1.5 quiet"
              >{g.plates_mm.length ? `plates ${g.plates_mm.join(", ")} mm` : g.kind}</td
            >
            <td class="px-3 py-1.5 text-right numeral"
              ><Qty kind="mass_g" value={g.load_g} /> <span class="font-normal quiet">a load</span></td
            >
            <td class="px-3 py-1.5 text-right numeral"
              ><Qty kind="mass_g" value={g.hold_up_g} /> <span class="font-normal quiet">stay in it</span></td
            >
            <td class="py-1 text-right"
              ><button
                class="min-h-9 cursor-pointer rounded px-2 text-sm text-primary hover:bg-base-200"
                onclick={() => (at = index)}>Correct<span class="sr-only"> {g.name}</span></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>
{#if at !== null}
  <GrinderSheet
    grinder={grinders[at] ?? null}
    taken={grinders.map((g) => g.key)}
    {problem}
    onclose={() => (at = null)}
    onsave={async (grinder) => {
      const next = grinders.slice();
      if (grinder) next[at ?? next.length] = grinder;
      else next.splice(at ?? 0, 1);
      if (await onsave(next)) at = null;
    }}
  />
{/if}
