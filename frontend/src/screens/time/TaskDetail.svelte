<!-- One task: when, who, what binds its start and how far it may slip; pinned, let go, or left out. -->
<script lang="ts">
  import type { TimedTask, Timetable } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";
  import { dayName } from "./lanes";

  interface Props {
    table: Timetable;
    task: TimedTask;
    onpin: (key: string, start_min: number | null) => void;
    ondrop: (key: string) => void;
  }
  let { table, task, onpin, ondrop }: Props = $props();
  const who = $derived(
    task.lanes.map((lane) => table.lanes.find((l) => l.key === lane)?.title ?? lane).join(", "),
  );
</script>

<section class="mt-4 border-l-4 border-primary pl-3" aria-label="The task chosen" data-chosen={task.key}>
  <h2 class="text-lg">
    <Say text={task.title} />{#if task.dish}<span class="font-normal quiet">, {task.dish}</span>{/if}
  </h2>
  <p class="mt-0.5 numeral">
    <strong>{task.starts}–{task.ends}</strong>{dayName(task.day) ? `, ${dayName(task.day)}` : ""} · {who}
  </p>
  <p class="mt-1 text-[0.9375rem] leading-snug"><Say text={task.why} /></p>
  <p class={["text-[0.9375rem] leading-snug", task.critical && "text-warning"]}><Say text={task.slip} /></p>
  <div class="mt-2 flex flex-wrap gap-2">
    <button class="act" onclick={() => onpin(task.key, task.start_min - 5)}>5 min earlier</button>
    <button class="act" onclick={() => onpin(task.key, task.start_min + 5)}>5 min later</button>
    {#if task.pinned}<button class="act" onclick={() => onpin(task.key, null)}>Let it go</button>
    {:else}<button class="act" onclick={() => onpin(task.key, task.start_min)}>Pin it here</button>{/if}
    {#if task.own}<button class="act" onclick={() => ondrop(task.key)}>Leave it out</button>{/if}
  </div>
</section>
