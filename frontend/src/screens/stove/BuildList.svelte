<!-- The build at the stove: big rows to tick with a knuckle, from below; ticked again for the next one. -->
<script lang="ts">
  import Check from "@lucide/svelte/icons/check";
  import type { CheckLine } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";

  let { lines, builds }: { lines: CheckLine[]; builds: number } = $props();
  let ticked = $state.raw<readonly number[]>([]);
  let done = $state(0);

  function tick(at: number): void {
    ticked = ticked.includes(at) ? ticked.filter((n) => n !== at) : [...ticked, at];
  }
  const all = $derived(ticked.length === lines.length);
  function next(): void {
    done += 1;
    // What was made ready stays ready.
    ticked = [...lines.keys()].filter((at) => lines[at]?.when === "before");
  }
</script>

{#if lines.length > 0}
  <section aria-label="Build">
    <div class="flex flex-wrap items-baseline justify-between gap-x-6">
      <h2 class="text-2xl">Build {builds === 1 ? "it" : `${builds} of them`}, from below</h2>
      {#if builds > 1 && done > 0}<p class="text-xl text-[#a9b5b6]" role="status">{done} built</p>{/if}
    </div>
    <ul class="mt-2 gap-x-8 sm:columns-2">
      {#each lines as line, at (at)}
        <li class="break-inside-avoid border-b border-base-300">
          <button
            class="flex min-h-16 w-full cursor-pointer items-center gap-4 py-2 text-left text-xl active:brightness-125"
            aria-pressed={ticked.includes(at)}
            onclick={() => tick(at)}
          >
            <span
              class={[
                "grid size-9 shrink-0 place-items-center rounded border-2",
                ticked.includes(at) ? "border-primary bg-primary text-primary-content" : "border-[#7d8f93]",
              ]}
              aria-hidden="true"
              >{#if ticked.includes(at)}<Check size={26} />{/if}</span
            >
            <span class={["min-w-0 flex-1 leading-tight", ticked.includes(at) && "text-[#a9b5b6]"]}
              >{line.title}</span
            >
            {#if line.mass_g > 0}<span class="numeral"><Qty kind="mass_g" value={line.mass_g} /></span>{/if}
          </button>
        </li>
      {/each}
    </ul>
    {#if builds > 1}
      <button
        class="mt-4 min-h-16 cursor-pointer rounded bg-base-200 px-8 text-xl font-semibold active:brightness-125 disabled:opacity-35"
        disabled={!all || done >= builds}
        onclick={next}>{done + 1 >= builds ? "The last one is built" : "Built: the next one"}</button
      >
    {/if}
  </section>
{/if}
