<!-- What the uncertainty is made of, largest first, and what to measure to halve it. -->
<script lang="ts">
  import type { HeatCurve } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  let { curve, done }: { curve: HeatCurve; done: number } = $props();
  const shown = $derived((curve.uncertainty ?? []).filter((c) => c.share >= 0.05).slice(0, 4));
</script>

<section aria-label="Uncertainty">
  <h2 class="text-base">Where the uncertainty comes from</h2>
  {#if !curve.uncertainty}
    <p role="status" class="mt-1 text-[0.875rem] quiet">
      Computing, {Math.round(done * 100)} %
      <progress class="ml-2 w-32 align-middle" value={done}></progress>
    </p>
  {:else if !shown.length}
    <p class="mt-1 text-[0.875rem] leading-snug quiet">
      It goes by the clock from end to end: what is not known shows in what comes of it, not in when.
    </p>
  {:else}
    <ul class="mt-1">
      {#each shown as cause, at (cause.cause)}
        <li
          class={["grid grid-cols-[3rem_1fr] gap-x-2 py-1 text-[0.875rem] leading-snug", at > 0 && "quiet"]}
        >
          <span class="text-right numeral">{Math.round(cause.share * 100)} %</span>
          <span><Say text={cause.advice} /></span>
        </li>
      {/each}
    </ul>
  {/if}
</section>
