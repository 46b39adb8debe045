<!-- One factor drawn: what was thought before, what each cook asks for, what is thought now, what is in use. -->
<script lang="ts">
  import type { Learnt } from "../../lib/api/client";
  import { MARKS, place, times } from "./factorScale";

  let { row }: { row: Learnt } = $props();
  const label = $derived(
    `Before any cook ${times(row.prior.low)} to ${times(row.prior.high)}; now ${times(row.posterior.low)} to ` +
      `${times(row.posterior.high)}, most likely ${times(row.posterior.usual)}; in use ${times(row.in_use)}`,
  );
</script>

<div role="img" aria-label={label} class="relative h-11">
  <svg class="absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
    {#each MARKS as mark (mark)}
      <line
        x1="{place(mark)}%"
        x2="{place(mark)}%"
        y1="0"
        y2="30"
        class={mark === 1 ? "stroke-base-content" : "stroke-base-300"}
      />
      <text
        x="{place(mark)}%"
        y="42"
        text-anchor={mark === MARKS[0] ? "start" : mark === MARKS.at(-1) ? "end" : "middle"}
        class="fill-[var(--color-quiet)] text-[0.6875rem]">{mark}</text
      >
    {/each}
    <line
      x1="{place(row.prior.low)}%"
      x2="{place(row.prior.high)}%"
      y1="8"
      y2="8"
      class="stroke-[var(--color-kraft)]"
      stroke-width="9"
    />
    <line
      x1="{place(row.posterior.low)}%"
      x2="{place(row.posterior.high)}%"
      y1="8"
      y2="8"
      class="stroke-primary"
      stroke-width="5"
    />
    <circle
      cx="{place(row.posterior.usual)}%"
      cy="8"
      r="4.5"
      class="fill-base-100 stroke-primary"
      stroke-width="2"
    />
    {#each row.data as seen (`${seen.cook}.${seen.piece}`)}
      <circle
        cx="{place(seen.factor.usual)}%"
        cy="22"
        r="3"
        class={seen.aside || seen.outlier ? "fill-none stroke-base-content" : "fill-base-content"}
        fill-opacity="0.55"
      />
    {/each}
  </svg>
  <!-- What forecasts are made with now. -->
  <span
    class="absolute -top-1.5 -ml-[5px] border-x-[5px] border-t-[7px] border-x-transparent border-t-base-content"
    style:left="{place(row.in_use)}%"
    aria-hidden="true"
  ></span>
</div>
