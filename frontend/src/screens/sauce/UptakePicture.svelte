<!-- How far a slice is on its way to rest, hour by hour: what is likely as a band, the usual as a line. -->
<script lang="ts">
  import { scaleLinear, scaleSqrt } from "d3-scale";
  import type { Pickled } from "../../lib/api/client";

  let { found }: { found: Pickled } = $props();
  let width = $state(420);
  const height = 210;
  // The first hours are what a cook asks about: they get more room.
  const x = $derived(scaleSqrt([0, 72], [34, width - 14]));
  const y = scaleLinear([0, 1], [height - 34, 12]);
  const line = (key: "low" | "usual" | "high") =>
    found.course.map((p) => `${x(p.hours).toFixed(1)} ${y(p.frac[key]).toFixed(1)}`);
  const named = $derived(
    found.course
      .filter((p) => [1, 6, 24, 72].includes(p.hours))
      .map((p) => `after ${p.hours} h ${Math.round(p.frac.low * 100)} to ${Math.round(p.frac.high * 100)} %`)
      .join(", "),
  );
</script>

<div class="min-w-0" bind:clientWidth={width}>
  <svg {width} {height} role="img" aria-label={`On its way to rest: ${named}`} class="block">
    <rect
      x={x(found.usual_h[0])}
      y="12"
      width={x(found.usual_h[1]) - x(found.usual_h[0])}
      height={y(0) - 12}
      class="fill-base-200"
    />
    <text x={x(found.usual_h[0]) + 6} y={y(0) - 8} class="fill-quiet text-[12px]">usual practice</text>
    {#each [0, 0.5, 0.9, 1] as share (share)}
      <path
        d={`M34 ${y(share)}H${width - 14}`}
        class="stroke-base-300"
        stroke-dasharray={share === 0.9 ? "4 3" : ""}
      />
      {#if share !== 1}<text x="29" y={y(share) + 4} text-anchor="end" class="fill-quiet text-[12px]"
          >{share * 100}</text
        >{/if}
    {/each}
    <path d={`M${line("high").join("L")}L${line("low").reverse().join("L")}Z`} fill="#b9cfcb" />
    <path d={`M${line("usual").join("L")}`} fill="none" class="stroke-base-content" stroke-width="2" />
    {#each [1, 3, 6, 12, 24, 48, 72] as hour (hour)}
      <path d={`M${x(hour)} ${y(0)}v5`} class="stroke-quiet" />
      <text x={x(hour)} y={y(0) + 17} text-anchor="middle" class="fill-quiet text-[12px]">{hour}</text>
    {/each}
    <text x="34" y={height - 2} class="fill-quiet text-[12px]">hours in the brine</text>
    <text x="2" y="9" class="fill-quiet text-[12px]">% of the way</text>
  </svg>
</div>
