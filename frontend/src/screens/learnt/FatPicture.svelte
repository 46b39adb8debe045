<!-- One cut's fat drawn: the table's range, the range of the next delivery, and each that was tested. -->
<script lang="ts">
  import type { LearntFat } from "../../lib/api/client";
  import { fatMarks, fatPlace } from "./fatScale";

  let { fat }: { fat: LearntFat } = $props();
  const marks = $derived(
    fatMarks([fat.prior.high, fat.posterior.high, ...fat.data.map((seen) => seen.fat_frac)]),
  );
  const most = $derived(marks.at(-1) ?? 1);
  const place = (value: number) => fatPlace(value, most);
  const per = (value: number) => `${Math.round(value * 100)} %`;
  const label = $derived(
    `By the table ${per(fat.prior.low)} to ${per(fat.prior.high)}; the next delivery here ` +
      `${per(fat.posterior.low)} to ${per(fat.posterior.high)}, most likely ${per(fat.posterior.usual)}; ` +
      `${fat.data.length} tested`,
  );
</script>

<svg class="h-11 w-full overflow-visible" role="img" aria-label={label}>
  {#each marks as mark (mark)}
    <line x1="{place(mark)}%" x2="{place(mark)}%" y1="0" y2="30" class="stroke-base-300" />
    <text
      x="{place(mark)}%"
      y="42"
      text-anchor={mark === 0 ? "start" : mark === most ? "end" : "middle"}
      class="fill-[var(--color-quiet)] text-[0.6875rem]">{per(mark)}</text
    >
  {/each}
  <line
    x1="{place(fat.prior.low)}%"
    x2="{place(fat.prior.high)}%"
    y1="8"
    y2="8"
    class="stroke-[var(--color-kraft)]"
    stroke-width="9"
  />
  <line
    x1="{place(fat.posterior.low)}%"
    x2="{place(fat.posterior.high)}%"
    y1="8"
    y2="8"
    class="stroke-primary"
    stroke-width="5"
  />
  <circle
    cx="{place(fat.posterior.usual)}%"
    cy="8"
    r="4.5"
    class="fill-base-100 stroke-primary"
    stroke-width="2"
  />
  {#each fat.data as seen (seen.lot)}
    <circle
      cx="{place(seen.fat_frac)}%"
      cy="22"
      r="3"
      class={seen.outlier ? "fill-none stroke-base-content" : "fill-base-content"}
      fill-opacity="0.55"
    />
  {/each}
</svg>
