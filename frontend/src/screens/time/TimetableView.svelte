<!-- A timetable: the hour, the hands, what would help, lanes or a list, and one more task. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import type { Formula, Kitchen, Problem, Timetable, TimingEdit } from "../../lib/api/client";
  import type { Searching } from "../../lib/search.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Looking from "../../lib/ui/Looking.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Tabs from "../../lib/ui/Tabs.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import AwayForm from "./AwayForm.svelte";
  import LanePicture from "./LanePicture.svelte";
  import OwnTaskForm from "./OwnTaskForm.svelte";
  import TaskDetail from "./TaskDetail.svelte";
  import TaskList from "./TaskList.svelte";
  import { clock, dayName } from "./lanes";

  interface Props {
    timing: Formula["timing"];
    /** Who looks for the timetable. */
    search: Searching;
    table: Timetable | null;
    /** Why there is none. */
    problem: Problem | null;
    /** What was typed and cannot be, in words. */
    refusal: string | null;
    kitchen: Kitchen;
    onedit: (edit: TimingEdit) => void;
    /** What stands above the hour. */
    before?: Snippet;
    /** Nothing is asked for: no dish was chosen. */
    idle?: boolean;
    /** A third tab: orders as they come. */
    orders?: Snippet;
    /** A fourth: short of time. */
    short?: Snippet;
    /** A fifth: carried elsewhere. */
    carried?: Snippet;
    /** A calendar of a cook was chosen. */
    oncalendar?: (cook: number, text: string) => void;
  }
  let {
    timing,
    search,
    table,
    problem,
    refusal,
    kitchen,
    onedit,
    before,
    idle = false,
    orders,
    short,
    carried,
    oncalendar,
  }: Props = $props();
  const tabs = $derived([
    { key: "lanes", title: "Lanes" },
    { key: "list", title: "List" },
    ...(orders ? [{ key: "orders", title: "Orders as they come" }] : []),
    ...(short ? [{ key: "short", title: "Short of time" }] : []),
    ...(carried ? [{ key: "carried", title: "Carried elsewhere" }] : []),
  ]);
  // On a phone the list reads better than lanes a thumb wide.
  let open = $state<"lanes" | "list" | "orders" | "short" | "carried">(
    window.innerWidth < 640 ? "list" : "lanes",
  );
  let span = $state<"all" | "end">("all");
  let chosen = $state("");

  /** The timetable itself, and not what else can be asked of it. */
  const planned = $derived(open === "lanes" || open === "list");
  const task = $derived(table?.tasks.find((t) => t.key === chosen));
  const ahead = $derived(table?.tasks.filter((t) => t.day < 0) ?? []);
  const first = $derived(
    Math.min(-30, ...(table?.tasks.filter((t) => t.day >= 0).map((t) => t.start_min) ?? [])),
  );
  const from = $derived(span === "all" ? first - 4 : Math.max(first - 4, -90));
  const type = (what: "ready" | "opens" | "cooks") => (text: string) =>
    onedit({ kind: "type-timing", what, text });
  const pin = (key: string, start_min: number | null) => onedit({ kind: "pin-task", task: key, start_min });
</script>

<Tabs heading="Time" {tabs} {open} onopen={(key) => (open = key as typeof open)}>
  {#snippet above()}
    {#if planned}
      {@render before?.()}
      <div class="mt-4 flex flex-wrap items-end gap-3">
        <QuickField
          label="On the plate at"
          value={clock(0, timing.ready_min)}
          width="6rem"
          oncommit={type("ready")}
        />
        <QuickField label="Cooks" value={String(timing.cooks)} width="4.5rem" oncommit={type("cooks")} />
        <QuickField
          label="Work begins at"
          value={timing.opens_min < 0 ? "" : clock(0, timing.opens_min)}
          placeholder="as needed"
          width="7.5rem"
          oncommit={type("opens")}
        />
        {#if open === "lanes" && first < -120}<Segments
            label="Show"
            options={[
              { key: "all", title: "The whole day" },
              { key: "end", title: "Last hour and a half" },
            ] as const}
            value={span}
            onpick={(key) => (span = key)}
          />{/if}
      </div>
      {#if refusal}<p role="alert" class="mt-3 text-[0.875rem] text-error">{refusal}</p>{/if}
      {#if problem}
        <p role="alert" class="mt-3 text-[0.875rem] text-error">{problem.detail}</p>
      {/if}
      {#if !idle}<Looking {search} what="a timetable" />{/if}
      {#if table}
        <div
          class="mt-4"
          data-timetable={table.impossible
            ? "impossible"
            : table.unsettled
              ? "unsettled"
              : table.late_min > 0
                ? "late"
                : "on-time"}
        >
          <p
            class={[
              "max-w-[44rem] text-[1.0625rem] leading-snug font-semibold",
              (table.impossible || table.unsettled || table.late_min > 0) && "text-error",
            ]}
            role="status"
          >
            <Say text={table.says} />
          </p>
          {#if table.offers.length > 0}
            <ul class="mt-2 max-w-[34rem]" aria-label="What would help">
              {#each table.offers as offer, n (n)}
                <li class="flex items-center justify-between gap-4 border-t border-base-300 py-1.5">
                  <span
                    ><span class="font-semibold"><Say text={offer.what} /></span>
                    <span class="quiet">→ <Say text={offer.comes} /></span></span
                  >
                  {#if offer.edit}
                    {@const edit = offer.edit}<button class="act" onclick={() => onedit(edit)}>Take it</button
                    >
                  {/if}
                </li>
              {/each}
            </ul>
          {:else if table.tasks.length > 0}
            <div class="mt-2 flex flex-wrap gap-x-8 gap-y-3">
              <Fact label="On time, of evenings"><Qty kind="frac" value={table.on_time_frac} /></Fact>
              <Fact label="Ready before the hour"><Qty kind="minutes" value={table.cushion_min} /></Fact>
              <Fact label="Hot food waits, on average"
                ><Qty kind="minutes" value={table.waits_hot_min} /></Fact
              >
            </div>
          {/if}
          {#if table.remarks.length > 0}
            <ul class="mt-3 grid gap-x-8 gap-y-2 md:grid-cols-2" aria-label="Counsel of time">
              {#each table.remarks as remark (remark.key)}
                <li
                  class={[
                    "border-l-[3px] pl-2.5 text-[0.9375rem] leading-snug",
                    remark.level === "warn" ? "border-warning" : "border-base-300",
                  ]}
                >
                  <span class="font-semibold"><Say text={remark.title} />.</span>
                  <Say text={remark.reason} />
                </li>
              {/each}
            </ul>
          {/if}
        </div>
      {:else if search.busy && !search.looking && !idle}<p class="mt-4 quiet" aria-busy="true">
          Putting it in time … the first one takes some seconds.
        </p>{/if}
    {/if}
  {/snippet}
  {#if open === "orders"}
    {@render orders?.()}
  {:else if open === "short"}
    {@render short?.()}
  {:else if open === "carried"}
    {@render carried?.()}
  {:else if table && table.tasks.length > 0}
    {#if open === "lanes"}
      {#if ahead.length > 0}
        <ul class="mt-4 flex flex-wrap gap-x-6 gap-y-1" aria-label="Days ahead">
          {#each ahead as one (one.key)}
            <li>
              <button
                class="cursor-pointer text-left underline underline-offset-4"
                onclick={() => (chosen = one.key)}
                ><strong>{dayName(one.day)}, {one.starts}</strong>: <Say text={one.title} /></button
              >
            </li>
          {/each}
        </ul>
      {/if}
      <div class="mt-4">
        <LanePicture {table} {from} {chosen} onchoose={(key) => (chosen = key)} onpin={pin} />
      </div>
      <p class="mt-1 text-[0.8125rem] quiet">
        Dark: a cook stands at it. Pale: by itself. A brown edge below: it may not slip.{table.away.length > 0
          ? " Hatched: the cook is away."
          : ""} Drag a bar, or move it with the arrow keys, and it begins then.
      </p>
      {#if timing.pins.length > 0}<button class="mt-2 act" onclick={() => pin("", null)}
          >Let everything pinned go</button
        >{/if}
      {#if task}<TaskDetail
          {table}
          {task}
          onpin={pin}
          ondrop={(key) => onedit({ kind: "drop-task", task: key })}
        />{/if}
    {:else}
      <TaskList {table} {chosen} onchoose={(key) => (chosen = chosen === key ? "" : key)} />
      {#if task}<TaskDetail
          {table}
          {task}
          onpin={pin}
          ondrop={(key) => onedit({ kind: "drop-task", task: key })}
        />{/if}
    {/if}
  {/if}
  {#if planned}
    <OwnTaskForm
      {kitchen}
      count={timing.own.length}
      names={timing.own.map((task) => task.title)}
      onadd={onedit}
    />
    <AwayForm {timing} away={table?.away ?? []} {onedit} {oncalendar} />
  {/if}
</Tabs>
