<!-- One score on its scale of five, between two words: where it stands with its doubt, and where it is wanted. -->
<script lang="ts">
  import type { NextChanges } from "../../lib/api/client";

  let { score }: { score: NextChanges["scores"][number] } = $props();
  const left = (value: number) => `${(100 * (value - 1)) / 4}%`;
</script>

<li class="grid grid-cols-[3.5rem_minmax(0,1fr)_2rem] items-center gap-x-3 py-1">
  <span class="text-[0.9375rem] font-semibold">{score.title}</span>
  <span>
    <span class="relative block h-3" aria-hidden="true">
      <span class="absolute inset-x-0 top-[5px] h-0.5 bg-base-300"></span>
      <span
        class="absolute top-[3px] h-1.5 rounded-full bg-[#b9c6c8]"
        style:left={left(score.least)}
        style:right={`calc(100% - ${left(score.most)})`}
      ></span>
      <span class="absolute top-0 h-3 w-0.5 -translate-x-1/2 bg-base-content" style:left={left(score.wanted)}
      ></span>
      <span
        class="absolute top-0 size-3 -translate-x-1/2 rounded-full border-2 border-paper bg-primary"
        style:left={left(score.now)}
      ></span>
    </span>
    <span class="flex justify-between text-[0.75rem] quiet"
      ><span>{score.low}</span><span>{score.high}</span></span
    >
  </span>
  <span class="text-right numeral"
    >{score.now.toFixed(1)}<span class="sr-only">, wanted {score.wanted}</span></span
  >
</li>
