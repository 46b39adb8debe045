<!-- The same timetable as a list, by day: reads well aloud and on a phone. -->
<script lang="ts">
  import type { TimedTask, Timetable } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";
  import { dayName } from "./lanes";

  interface Props {
    table: Timetable;
    chosen: string;
    onchoose: (key: string) => void;
  }
  let { table, chosen, onchoose }: Props = $props();
  const days = $derived.by(() => {
    const found: { day: number; tasks: TimedTask[] }[] = [];
    for (const task of table.tasks) {
      const last = found.at(-1);
      if (last?.day === task.day) last.tasks.push(task);
      else found.push({ day: task.day, tasks: [task] });
    }
    return found;
  });
</script>

{#each days as { day, tasks } (day)}
  <h2 class="mt-5 text-base">{day === 0 ? "On the day" : dayName(day).replace(/^t/, "T")}</h2>
  <ol class="mt-1" aria-label={day === 0 ? "On the day" : dayName(day)}>
    {#each tasks as task (task.key)}
      <li class="border-t border-base-300" data-row={task.key}>
        <button
          class={[
            "grid w-full cursor-pointer grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 py-2 text-left hover:bg-base-200",
            chosen === task.key && "bg-base-200",
          ]}
          aria-pressed={chosen === task.key}
          onclick={() => onchoose(task.key)}
        >
          <span class="numeral">{task.starts}–{task.ends}</span>
          <span
            ><span class="font-semibold"><Say text={task.title} /></span>{#if !task.hands}<span class="quiet"
                >, by itself</span
              >{/if}{#if task.pinned}<span class="quiet">, pinned</span>{/if}{#if task.dish}<span
                class="quiet">, {task.dish}</span
              >{/if}
            <span class="block text-[0.8125rem] leading-snug quiet"><Say text={task.why} /></span></span
          >
        </button>
      </li>
    {/each}
  </ol>
{/each}
