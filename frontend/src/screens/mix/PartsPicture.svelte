<!-- Parts to a hundred of meat, one row a group, on one scale; the school's bands behind; each bar's end is handled. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Evaluation, MixSchool } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { amount } from "../../lib/format";
  import DragHandle from "../../lib/ui/DragHandle.svelte";
  import { units } from "../../lib/units.svelte";

  let { bench, evaluation, school }: { bench: Bench; evaluation: Evaluation; school: MixSchool } = $props();
  let width = $state(720);
  const rowH = 38;
  const left = $derived(width < 520 ? 118 : 168);
  const right = $derived(width < 520 ? 10 : 76);

  const band = (group: string): readonly [number, number] =>
    (school.bands as Record<string, [number, number]>)[group] as [number, number];
  const rows = $derived(
    evaluation.mix.groups
      .filter((g) => g.per_meat_frac > 0 || band(g.group)[1] > 0)
      .map((g) => {
        const [low, high] = band(g.group);
        const off = g.per_meat_frac > high + 1e-9 ? 1 : g.per_meat_frac < low - 1e-9 ? -1 : 0;
        return { ...g, low, high, off };
      }),
  );
  const lines = $derived(evaluation.mix.lines);
  const reach = $derived(
    [0.2, 0.3, 0.4, 0.6, 1, 1.6, 2.4, 4, 6].find(
      (m) => m >= Math.max(0.16, ...rows.map((r) => Math.max(r.high, r.per_meat_frac))) * 1.04,
    ) ?? 6,
  );
  let held = $state<number | null>(null);
  const most = $derived(held ?? reach);
  const x = $derived(scaleLinear([0, most], [left, Math.max(left + 60, width - right)]));
  const height = $derived(rows.length * rowH + 26);
  const per = (value: number, high?: number) => amount({ kind: "per_hundred", value, high }, units);

  function to(group: string, px: number): void {
    // Half a part is what a hand can mean; the table takes finer ones.
    const value = Math.round(Math.min(most, Math.max(0, x.invert(px))) * 200) / 200;
    bench.edit({ kind: "set", figure: "group", value, item: group });
  }

  /** Where the segments of a group end, as shares of its bar: the lines in their order. */
  function cuts(group: string): number[] {
    const own = lines.filter((l) => l.group === group && l.per_meat_frac > 0);
    const all = own.reduce((sum, l) => sum + l.per_meat_frac, 0);
    let at = 0;
    return own.slice(0, -1).map((l) => (at += l.per_meat_frac / all));
  }
</script>

<div class="relative mt-2" bind:clientWidth={width}>
  {#if rows.length === 0}
    <p class="border-y border-base-300 py-6 text-center quiet">
      Nothing but meat in the bowl. That is this school; whatever you add below is drawn here.
    </p>
  {:else}
    <svg {width} {height} class="block select-none" aria-hidden="true">
      <defs>
        <pattern id="band" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="#f3e9d2" /><path d="M0 0V7" stroke="#d9bf83" stroke-width="1.6" />
        </pattern>
      </defs>
      {#each x.ticks(width < 520 ? 4 : 8) as tick (tick)}
        <path d={`M${x(tick)} 4V${rows.length * rowH + 2}`} class="stroke-base-300" />
        <text x={x(tick)} y={height - 6} text-anchor="middle" class="fill-quiet text-[11.5px]"
          >{(tick * 100).toFixed(0)}</text
        >
      {/each}
      {#each rows as row, at (row.group)}
        {@const y = at * rowH}
        {@const end = x(Math.min(row.per_meat_frac, most))}
        <text
          x="0"
          y={y + 18}
          class={[
            "text-[13.5px]",
            row.off ? "fill-warning font-semibold" : "fill-base-content font-semibold",
          ]}>{row.title}</text
        >
        <text x="0" y={y + 33} class="fill-quiet text-[12px]"
          >{row.per_meat_frac > 0
            ? `${per(row.per_meat_frac)} · ${amount({ kind: "mass_g", value: row.mass_g }, units)}`
            : "none"}</text
        >
        {#if row.high > 0}
          <rect
            x={x(row.low)}
            y={y + 4}
            width={x(row.high) - x(row.low)}
            height="30"
            fill="url(#band)"
            stroke="#c9a860"
          />
        {/if}
        <rect x={x(0)} y={y + 11} width={Math.max(0, end - x(0))} height="16" fill="#6b5140" />
        {#each cuts(row.group) as cut (cut)}
          <path d={`M${x(0) + cut * (end - x(0))} ${y + 11}v16`} stroke="#fbfaf6" stroke-width="2" />
        {/each}
        {#if row.held_frac > 0}
          <path d={`M${x(row.held_frac)} ${y + 8}v22`} stroke="#24323a" stroke-width="2.5" />
        {/if}
        {#if row.off && width >= 520}
          <text x={width - right + 10} y={y + 24} class="fill-warning text-[12.5px] font-semibold"
            >{row.off > 0
              ? `${per(row.per_meat_frac - row.high)} over`
              : `${per(row.low - row.per_meat_frac)} short`}</text
          >
        {/if}
      {/each}
    </svg>
    {#each rows as row, at (row.group)}
      <DragHandle
        label={`${row.title}, parts to a hundred of meat`}
        high={most * 100}
        now={Number((row.per_meat_frac * 100).toFixed(2))}
        text={`${per(row.per_meat_frac)}; ${row.high > 0 ? `the school has ${per(row.low, row.high)}` : "not used by the school"}`}
        left={x(Math.min(row.per_meat_frac, most))}
        top={at * rowH}
        height={rowH}
        ondrag={(px) => to(row.group, px)}
        onhold={(on) => (held = on ? reach : null)}
        onnudge={(steps) => bench.edit({ kind: "nudge", figure: "group", steps, item: row.group })}
      />
    {/each}
  {/if}
  {#if rows.length > 0}
    <p class="text-[0.75rem] quiet">
      Parts to a hundred of the raw meat, by mass. Hatched: the band of “{school.title}”. Drag a bar's end, or
      use the arrow keys.
    </p>
  {/if}
</div>
{#if bench.refusal?.target.startsWith("group:")}
  <p role="alert" class="mt-1 text-sm text-error">{bench.refusal.detail}</p>
{/if}
