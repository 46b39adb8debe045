<!-- Lanes by cook and by place on a real clock. A bar is chosen, dragged or moved by keys; it then begins when said. -->
<script lang="ts">
  import type { TimedTask, Timetable } from "../../lib/api/client";
  import { phrase } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import { barsOf, clock, markEvery, marksOf, rowsOf } from "./lanes";

  interface Props {
    table: Timetable;
    from: number;
    chosen: string;
    onchoose: (key: string) => void;
    onpin: (key: string, start_min: number) => void;
  }
  let { table, from, chosen, onchoose, onpin }: Props = $props();
  const uid = $props.id();
  const names = 118;
  const tall = 26;
  let width = $state(760);
  let held = $state<{ key: string; at: number; moved: number } | null>(null);

  const today = $derived(table.tasks.filter((t) => t.end_min > from));
  const to = $derived(Math.max(table.late_min, ...today.map((t) => t.end_min)) + 4);
  const scale = $derived(Math.max(0.05, (width - names - 8) / (to - from)));
  const x = (minute: number) => names + (minute - from) * scale;
  const bars = $derived(barsOf(today, table.lanes));
  const lanes = $derived.by(() => {
    let top = 26;
    return table.lanes
      .filter((lane) => [...bars, ...table.away].some((b) => b.lane === lane.key))
      .map((lane) => {
        const at = top;
        top += rowsOf(bars, lane.key) * (tall + 4) + 10;
        return { ...lane, top: at, bottom: top - 6 };
      });
  });
  const height = $derived((lanes.at(-1)?.bottom ?? 60) + 8);
  const marks = $derived(marksOf(from, to, table.ready_min, markEvery(to - from, width - names)));
  const topOf = (lane: string) => lanes.find((l) => l.key === lane)?.top ?? 0;
  /** A bar that was moved stands where it was put until the timetable has followed. */
  let going = $state<{ key: string; start_min: number } | null>(null);
  $effect(() => {
    const there = table.tasks.find((t) => t.key === going?.key);
    if (!there || there.start_min === going?.start_min) going = null;
  });
  const shift = (task: TimedTask) => {
    if (held?.key === task.key) return Math.round(held.moved / scale);
    return going?.key === task.key ? going.start_min - task.start_min : 0;
  };
  function put(task: TimedTask, by: number): void {
    going = { key: task.key, start_min: task.start_min + by };
    onpin(task.key, going.start_min);
  }

  function grab(event: PointerEvent, task: TimedTask): void {
    onchoose(task.key);
    held = { key: task.key, at: event.clientX, moved: 0 };
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  }
  function drop(task: TimedTask): void {
    const by = shift(task);
    held = null;
    if (by !== 0) put(task, by);
  }
  /** Up and down choose the task before or after in time; left and right move the one that is chosen. */
  function key(event: KeyboardEvent): void {
    const at = today.findIndex((t) => t.key === chosen);
    const along = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const next = along ? today[at < 0 ? 0 : Math.min(today.length - 1, Math.max(0, at + along))] : undefined;
    const task = way ? today[at] : undefined;
    if (next) onchoose(next.key);
    else if (task && way) put(task, shift(task) + way * (event.shiftKey ? 10 : 1));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div
  class="relative min-w-0 overflow-hidden"
  bind:clientWidth={width}
  style:height={`${height}px`}
  role="listbox"
  tabindex="0"
  aria-label="Tasks in time"
  aria-activedescendant={chosen ? `${uid}-${chosen}` : undefined}
  onkeydown={key}
  data-lanes
>
  <svg {width} {height} class="absolute inset-0" aria-hidden="true">
    {#each marks as mark (mark)}
      <path d={`M${x(mark)} 20V${height}`} class="stroke-base-300" />
      <text x={x(mark)} y="14" text-anchor="middle" class="fill-quiet text-[12px]"
        >{clock(mark, table.ready_min)}</text
      >
    {/each}
    <path d={`M${x(0)} 18V${height}`} class="stroke-base-content" stroke-width="2" />
    <pattern
      id={`${uid}-away`}
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path d="M0 0V6" class="stroke-[#8b8f8a]" stroke-width="2" />
    </pattern>
    {#each table.away as gone, n (n)}
      {@const lane = lanes.find((l) => l.key === gone.lane)}
      {@const begins = x(Math.max(from, gone.start_min))}
      {#if lane && gone.end_min > from && gone.start_min < to}
        <rect
          x={begins}
          y={lane.top}
          width={x(Math.min(to, gone.end_min)) - begins}
          height={lane.bottom - lane.top - 2}
          fill={`url(#${uid}-away)`}
        />
      {/if}
    {/each}
    {#each lanes as lane (lane.key)}
      <path d={`M0 ${lane.bottom + 1}H${width}`} class="stroke-base-300" />
      <foreignObject x="0" y={lane.top} width={names - 8} height={lane.bottom - lane.top}>
        <div class="text-[0.8125rem] leading-tight font-semibold">{lane.title}</div>
      </foreignObject>
    {/each}
  </svg>
  {#each bars as bar (`${bar.task.key}@${bar.lane}`)}
    {@const task = bar.task}
    {@const first = bars.find((b) => b.task === task) === bar}
    {@const start = Math.max(task.start_min + shift(task), from)}
    {@const wide = Math.max(5, (task.end_min + shift(task) - start) * scale - 1)}
    <div
      class={[
        "absolute touch-none overflow-hidden rounded-[3px] border text-left text-[0.75rem] leading-none whitespace-nowrap",
        task.hands
          ? "border-primary bg-primary text-primary-content"
          : "border-[#8b8f8a] bg-[#d9e4e2] text-base-content",
        task.critical && "border-b-[3px] border-b-warning",
        chosen === task.key && "outline-3 outline-offset-1 outline-base-content",
        held?.key === task.key && "z-10 opacity-80",
      ]}
      style:left={`${x(start)}px`}
      style:top={`${topOf(bar.lane) + bar.row * (tall + 4)}px`}
      style:width={`${wide}px`}
      style:height={`${tall}px`}
      id={first ? `${uid}-${task.key}` : undefined}
      role="option"
      aria-hidden={first ? undefined : "true"}
      aria-selected={chosen === task.key}
      aria-label={`${phrase(task.title, units)}${task.dish ? `, ${task.dish}` : ""}, ${task.starts} to ${task.ends}${task.pinned ? ", pinned" : ""}`}
      data-task={task.key}
      onpointerdown={(e) => grab(e, task)}
      onpointermove={(e) => held?.key === task.key && (held = { ...held, moved: e.clientX - held.at })}
      onpointerup={() => drop(task)}
      onpointercancel={() => (held = null)}
    >
      {#if wide > 46}<span class="block truncate px-1.5 leading-[24px]"
          >{task.pinned ? "• " : ""}{phrase(task.title, units)}</span
        >{/if}
    </div>
  {/each}
</div>
