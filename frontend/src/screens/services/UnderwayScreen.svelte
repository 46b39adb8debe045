<!-- A service under way: what is at work, what comes next, and what gives when something is late. Dark, for a knuckle. -->
<script lang="ts">
  import type { TimedTask } from "../../lib/api/client";
  import { keepAwake } from "../../lib/awake";
  import { wakeSound, type Chime } from "../../lib/chime";
  import { cues } from "../../lib/cues.svelte";
  import { phrase } from "../../lib/format";
  import { kitchens } from "../../lib/kitchens.svelte";
  import CuesMenu from "../../lib/ui/CuesMenu.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import { dayName } from "../time/lanes";
  import ChecksList from "./ChecksList.svelte";
  import ChecksNow from "./ChecksNow.svelte";
  import { openEvening, type Evening } from "./evening.svelte";
  import { shownBy } from "./marks";

  const id = $derived(Number(route.params.id));
  let evening = $state.raw<Evening | null>(null);
  $effect(() => {
    const now = openEvening(id, String(kitchens.here));
    evening = now;
    const rest = keepAwake();
    cues.restore();
    return () => {
      rest();
      now.close();
    };
  });
  const run = $derived(evening?.run ?? null);
  const planned = $derived(evening?.planned ?? null);
  $effect(() => {
    if (run && evening && run.service.dishes.length > 0) return evening.plan();
  });
  $effect(() => {
    if (run && planned && planned.tasks.length > 0)
      return run.answer.ask(run.question(planned, units.system));
  });
  $effect(() => {
    const fresh = run?.answer.value;
    if (run && planned && fresh) run.remember(planned, fresh);
  });
  $effect(() => {
    if (run && answer) return run.checks.ask(run.checkQuestion(answer.tasks, units.system));
  });
  const checks = $derived(run?.checks.value?.rows ?? []);
  const now = $derived(run?.now ?? 0);
  /** What was missed first, then what has just become due: a wave that comes off does not wait for the fridge. */
  const measure = $derived([
    ...checks.filter((r) => r.state === "missed"),
    ...checks
      .filter(
        (r) => ["due", "overdue"].includes(r.state) || (r.state === "running" && (r.next_min ?? 0) <= now),
      )
      .toReversed(),
  ]);
  const answer = $derived(run?.answer.value ?? evening?.before ?? null);
  const tasks = $derived(answer && run ? shownBy(answer.tasks, run.marks) : []);
  const running = $derived(tasks.filter((t) => t.status === "running"));
  const waiting = $derived(tasks.filter((t) => t.status === "to-do"));
  const done = $derived(tasks.filter((t) => t.status === "done"));
  const due = $derived(waiting.filter((t) => t.start_min <= (run?.now ?? 0)));
  const soon = $derived(waiting.filter((t) => !due.includes(t)).slice(0, 3));
  const rest = $derived(waiting.filter((t) => !due.includes(t) && !soon.includes(t)));
  const wasAt = (key: string) => answer?.moved.find((m) => m.key === key)?.was;
  const trouble = $derived(evening?.problem ?? run?.problem ?? null);
  const over = $derived(running.filter((t) => t.end_min <= (run?.now ?? 0)));
  /** Each thing calls once: what was called for, by its key and what was asked. */
  let called: string[] = [];
  const call = (keys: string[], which: Chime, words: string) => {
    const fresh = keys.filter((key) => !called.includes(key));
    called = [...called, ...fresh];
    if (fresh.length > 0) cues.call(which, words);
  };
  const spoken = (found: TimedTask[]) => found.map((t) => phrase(t.title, units)).join(", ");
  $effect(() =>
    call(
      due.map((t) => `begin ${t.key}`),
      "begin",
      `Now: ${spoken(due)}.`,
    ),
  );
  $effect(() =>
    call(
      over.map((t) => `over ${t.key} ${t.end_min}`),
      "over",
      `${spoken(over)}: look at it.`,
    ),
  );
  $effect(() => {
    if (answer && answer.late_min > 0) call([`late ${answer.late_min}`], "late", phrase(answer.says, units));
  });
  $effect(() =>
    call(
      measure.map((r) => `measure ${r.key} ${r.state} ${r.next}`),
      "measure",
      `Measure: ${measure.map((r) => phrase(r.title, units)).join(", ")}.`,
    ),
  );
  const cooks = $derived(answer?.lanes.filter((l) => l.kind === "cook") ?? []);
  /** Whose task it is, where there is more than one cook. */
  const who = (task: TimedTask) => {
    const cook = cooks.length > 1 ? cooks.find((l) => task.lanes.includes(l.key)) : undefined;
    return cook ? `, ${cook.title}` : "";
  };
  const takes = (task: TimedTask) => task.end_min - task.start_min;
</script>

<svelte:head><title>{evening?.name ?? "Service"} under way · Vianda</title></svelte:head>
{#snippet named(task: TimedTask)}
  <span class="text-xl leading-snug font-semibold"><Say text={task.title} /></span>{#if task.dish}<span
      class="text-[#a9b5b6]">, {task.dish}</span
    >{/if}
{/snippet}
{#snippet when(task: TimedTask)}
  <span class="text-lg numeral">{task.starts}</span>{#if task.day < 0}<span class="block text-[#a9b5b6]"
      >{dayName(task.day)}</span
    >{/if}{#if wasAt(task.key)}<span class="block text-[#a9b5b6]"
      >was <span class="numeral">{wasAt(task.key)}</span></span
    >{/if}
{/snippet}
{#snippet toDo(task: TimedTask)}
  <li
    class="grid grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-x-3 gap-y-2 border-t border-base-300 py-2.5 sm:grid-cols-[5.5rem_minmax(0,1fr)_auto]"
    data-row={task.key}
    data-status={task.status}
  >
    <span>{@render when(task)}</span>
    <span
      >{@render named(task)}<span class="block text-[#a9b5b6]"
        >{takes(task)} min{task.hands ? who(task) : ", by itself"}</span
      ></span
    >
    <span class="flex gap-2 max-sm:col-span-2">
      <button
        class="min-h-14 min-w-24 cursor-pointer rounded bg-primary px-4 text-lg font-bold text-primary-content max-sm:flex-1"
        onclick={() => run?.begin(task.key)}
        >Begin<span class="sr-only">
          <Say text={task.title} />{task.dish ? `, ${task.dish}` : ""}</span
        ></button
      >
      <button
        class="min-h-14 cursor-pointer rounded bg-base-200 px-4 text-lg font-semibold max-sm:flex-1"
        onclick={() => run?.end(task.key, takes(task))}
        >Done<span class="sr-only">
          already: <Say text={task.title} />{task.dish ? `, ${task.dish}` : ""}</span
        ></button
      >
    </span>
  </li>
{/snippet}
<svelte:window onpointerdown={wakeSound} onkeydown={wakeSound} />
<div data-theme="stove" class="flex min-h-dvh flex-col bg-base-100 p-4 text-base-content sm:p-7">
  <header class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 text-lg text-[#a9b5b6]">
    <p>{evening?.name ?? ""}{answer ? `, wanted at ${answer.ready}` : ""}</p>
    <span class="flex flex-wrap items-baseline gap-x-6">
      <CuesMenu />
      <a class="underline underline-offset-4" href={`/services/${id}`}>Back to the service</a>
    </span>
  </header>
  <main id="main" class="mt-2 flex-1">
    {#if run && (run.away || run.outbox.away)}
      <p role="status" class="mb-2 text-lg text-[#ffd9a0]">
        The line is down. {run.outbox.items.length === 0
          ? "Other devices are not heard; what you say here is kept."
          : run.outbox.items.length === 1
            ? "1 thing said waits here and will be sent."
            : `${run.outbox.items.length} things said wait here and will be sent.`}
      </p>
    {/if}
    {#if evening?.missing}
      <h1 class="text-3xl">This service is not here</h1>
      <p class="mt-2 text-xl text-[#c9d1d0]">It was deleted, or it belongs to another kitchen.</p>
    {:else if run && run.service.dishes.length === 0}
      <h1 class="text-3xl">Nothing to cook yet</h1>
      <p class="mt-2 text-xl text-[#c9d1d0]">Choose a dish in the service first.</p>
    {:else if evening?.timetable && evening.timetable.tasks.length === 0}
      <h1 class="text-3xl">There is no timetable to follow</h1>
      <p class="mt-2 text-xl text-[#c9d1d0]">
        <Say text={evening.timetable.says} /> The service shows what would help.
      </p>
    {:else if !answer || !run}
      <h1 class="text-3xl">{evening?.name ?? "Service"}</h1>
      {#if !trouble}<p class="mt-4 text-xl" aria-busy="true">
          Planning from now on …{evening?.tried ? ` Plans tried: ${evening.tried}.` : ""}
        </p>{/if}
    {:else}
      <div class="flex flex-wrap items-end justify-between gap-x-8">
        <h1
          class={[
            "text-[clamp(1.7rem,4.4vw,2.6rem)] leading-[1.1]",
            answer.late_min > 0 ? "text-primary" : "",
          ]}
          role="status"
          data-under-way={answer.late_min > 0 ? "late" : "on-time"}
        >
          <Say text={answer.says} />
        </h1>
        <p class="text-[clamp(2.6rem,7vw,4.2rem)] leading-none numeral" aria-label="Now">{run.clock}</p>
      </div>
      {#if answer.gives.length > 0}
        <ul class="mt-3 max-w-[60rem] text-xl text-[#ffd9a0]" aria-label="What gives">
          {#each answer.gives as text, n (n)}<li class="py-0.5"><Say {text} /></li>{/each}
        </ul>
      {/if}
      <div class="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
        <div class="min-w-0">
          {#if running.length > 0}
            <h2 class="text-lg text-[#a9b5b6]">At work</h2>
            <ul aria-label="At work">
              {#each running as task (task.key)}
                <li
                  class="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-base-300 py-3"
                  data-row={task.key}
                  data-status="running"
                >
                  <span class="min-w-0 flex-1 basis-60"
                    >{@render named(task)}<span class="block text-lg text-[#c9d1d0]"
                      >until <span class="numeral">{task.ends}</span>{who(task)}{task.end_min <= run.now + 1
                        ? ": look at it"
                        : ""}</span
                    ></span
                  >
                  <span class="flex gap-2">
                    {#each [2, 5, 15] as by (by)}<button
                        class="min-h-14 min-w-16 cursor-pointer rounded bg-base-200 px-2 text-lg font-semibold"
                        onclick={() => run?.longer(task.key, task.end_min, by)}
                        >+{by} <span aria-hidden="true">min</span><span class="sr-only"
                          >minutes for <Say text={task.title} /></span
                        ></button
                      >{/each}
                    <button
                      class="min-h-14 min-w-24 cursor-pointer rounded bg-primary px-4 text-lg font-bold text-primary-content"
                      onclick={() => run?.end(task.key, takes(task))}
                      >Done<span class="sr-only">: <Say text={task.title} /></span></button
                    >
                  </span>
                </li>
              {/each}
            </ul>
          {/if}
          {#if measure.length > 0}
            <h2 class={["text-lg text-[#ffd9a0]", running.length > 0 && "mt-6"]}>Measure and write down</h2>
            <ChecksNow {run} rows={measure.slice(0, 2)} label="Measure now" />
          {/if}
          {#if due.length > 0}
            <h2 class={["text-lg text-primary", running.length + measure.length > 0 && "mt-6"]}>Now</h2>
            <ul aria-label="Now">
              {#each due as task (task.key)}{@render toDo(task)}{/each}
            </ul>
          {/if}
          {#if soon.length > 0}
            <h2
              class={["text-lg text-[#a9b5b6]", running.length + due.length + measure.length > 0 && "mt-6"]}
            >
              Next
            </h2>
            <ul aria-label="Next">
              {#each soon as task (task.key)}{@render toDo(task)}{/each}
            </ul>
          {/if}
          {#if measure.length > 2}
            <h2 class="mt-6 text-lg text-[#ffd9a0]">Also to measure</h2>
            <ChecksNow {run} rows={measure.slice(2)} label="Also to measure" />
          {/if}
          {#if waiting.length + running.length === 0}
            <p class="text-2xl">Everything is done. On the plate.</p>
          {/if}
          {#if run.marks.length > 0 || run.canTakeBack}
            <div class="mt-6 flex flex-wrap gap-3">
              <button
                class="min-h-14 cursor-pointer rounded bg-base-200 px-5 text-lg font-semibold disabled:opacity-35"
                disabled={!run.canTakeBack}
                onclick={() => run?.takeBack()}>Take the last one back</button
              >
              <button
                class="min-h-14 cursor-pointer rounded bg-base-200 px-5 text-lg font-semibold"
                onclick={() => run?.forget()}>Begin the evening again</button
              >
            </div>
          {/if}
        </div>
        <div class="min-w-0">
          {#if rest.length > 0}
            <h2 class="text-lg text-[#a9b5b6]">After that</h2>
            <ol aria-label="After that">
              {#each rest as task (task.key)}
                <li
                  class="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-x-3 border-t border-base-300 py-2"
                  data-row={task.key}
                  data-status="to-do"
                >
                  <span>{@render when(task)}</span>
                  <span>{@render named(task)}</span>
                </li>
              {/each}
            </ol>
          {/if}
          <ChecksList {run} rows={checks} first={rest.length === 0} known={run.checks.value !== null} />
          {#if done.length > 0}
            <h2 class="mt-6 text-lg text-[#a9b5b6]">Done</h2>
            <ol class="text-[#a9b5b6]" aria-label="Done">
              {#each done as task (task.key)}
                <li
                  class="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3 border-t border-base-300 py-1.5"
                  data-row={task.key}
                  data-status="done"
                >
                  <span class="numeral">{task.starts}–{task.ends}</span>
                  <span><Say text={task.title} />{task.dish ? `, ${task.dish}` : ""}</span>
                </li>
              {/each}
            </ol>
          {/if}
        </div>
      </div>
    {/if}
    {#if trouble}<p role="alert" class="mt-4 text-xl text-[#ffab9f]">{trouble}</p>{/if}
  </main>
</div>
