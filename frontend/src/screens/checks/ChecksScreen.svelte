<!-- What the kitchen measured in a span of days: deliveries, the fridge, each evening; and one more to write down. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type CheckRecord, type CheckSheet } from "../../lib/api/client";
  import { dayAfter, dayName } from "../../lib/days";
  import { phrase, today } from "../../lib/format";
  import { keepWho, measuredNow, whoMeasures } from "../../lib/measured";
  import { newToken } from "../../lib/outbox.svelte";
  import { Resource } from "../../lib/resource.svelte";
  import { clockText } from "../services/marks";
  import { Told } from "../../lib/told.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import SpanFields, { type Span } from "../../lib/ui/SpanFields.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import RecordRows from "./RecordRows.svelte";
  import { DEFERS, KINDS, linesOf } from "./record";

  let span = $state.raw<Span>({ from_day: dayAfter(today(), -6), to_day: today() });
  const asked = new Resource<Span, CheckRecord>((days, signal) =>
    api.kitchenChecks({ ...days, now: `${today()}T${clockText()}`, unit_system: units.system }, signal),
  );
  $effect(() => asked.ask(span));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const newest = $derived(found?.sheets.toReversed() ?? []);
  const told = new Told();
  let note = $state({ check: "cold", what: "", temp: "", done: "", who: whoMeasures() });

  /** What of today and yesterday is still to be measured or seen to goes on. */
  const open = $derived(
    newest
      .filter((sheet) => sheet.service_id === 0 && sheet.day >= dayAfter(today(), -1))
      .flatMap((sheet) =>
        sheet.rows
          .filter((row) => ["missed", "running", "unfinished"].includes(row.state))
          .map((row) => ({
            key: `${sheet.day} ${row.key}`,
            title: `Go on: ${[phrase(row.title, units), row.what].filter((p) => p).join(", ")}`,
          })),
      ),
  );
  const options = $derived([...open, ...KINDS, { key: "delivery", title: "A delivery" }]);
  /** What was to go on and is seen to is no longer offered: the next figure must not land there. */
  const chosen = $derived(options.some((one) => one.key === note.check) ? note.check : "cold");
  const goesOn = $derived(chosen.includes(" "));

  function write(event: SubmitEvent): void {
    event.preventDefault();
    void told.run(async () => {
      const now = measuredNow();
      const [first = "", rest = ""] = chosen.split(" ");
      const day = rest ? first : now.day;
      const check = rest || `${first}/own-${newToken()}`;
      // A check of yesterday goes on by yesterday's clock.
      const minute = day === now.day ? now.minute : now.minute + 1440;
      const who = keepWho(note.who);
      const said = {
        check,
        minute,
        who,
        task: "",
        value: new Date().getSeconds(),
        of: "",
        unit_system: "metric" as const,
      };
      const temp = note.temp.trim() ? (await api.read("temp_c", note.temp, units.system)).value : null;
      if (temp !== null)
        await api.noteKitchenCheck(day, {
          ...said,
          token: newToken(),
          kind: "measured",
          temp,
          remark: note.what.trim(),
        });
      note = { ...note, temp: "" };
      if (note.done.trim())
        await api.noteKitchenCheck(day, {
          ...said,
          token: newToken(),
          kind: "acted",
          temp: null,
          remark: note.done.trim(),
        });
      note = { ...note, what: "", done: "", who };
      if (day < span.from_day || day > span.to_day) span = { from_day: day, to_day: now.day };
      asked.ask(span);
    });
  }
  const wrong = (sheet: CheckSheet) => (of: string) =>
    void told.run(async () => {
      const { minute, who } = measuredNow();
      const nothing = {
        task: "",
        value: null,
        check: "",
        temp: null,
        unit_system: "metric" as const,
        remark: "",
      };
      await api.noteKitchenCheck(sheet.day, {
        ...nothing,
        token: newToken(),
        kind: "take-back",
        of,
        minute,
        who,
      });
      asked.ask(span);
    });
  const nameOf = (sheet: CheckSheet) =>
    sheet.service_id === 0 ? "The kitchen" : sheet.name || "A service that was deleted";
</script>

<svelte:head><title>Checks · Vianda</title></svelte:head>
<Shell here="Logbook">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-16 sm:px-6">
    <p class="print:hidden"><a class="text-primary underline underline-offset-3" href="/log">Logbook</a></p>
    <h1 class="mt-2 text-2xl">Checks</h1>
    <p class="quiet">
      {found ? `${found.kitchen}. ${linesOf(found)}` : "What the kitchen measured and wrote down."}
    </p>

    <form
      class="mt-4 border-y border-base-300 py-3 print:hidden"
      onsubmit={write}
      aria-label="A check to write down"
    >
      <div class="flex flex-wrap items-end gap-3">
        <PickField
          label="Check"
          value={chosen}
          {options}
          onpick={(key) => (note = { ...note, check: key })}
        />
        {#if !goesOn}<TextField
            label="Of what"
            width="13rem"
            value={note.what}
            placeholder="Walk-in, upper shelf"
            oninput={(t) => (note = { ...note, what: t })}
          />{/if}
        <TextField
          label="Temperature"
          width="7rem"
          value={note.temp}
          placeholder={units.system === "us" ? "38 °F" : "3 °C"}
          oninput={(t) => (note = { ...note, temp: t })}
        />
        <TextField
          label="What was done, if missed"
          width="15rem"
          value={note.done}
          oninput={(t) => (note = { ...note, done: t })}
        />
        <TextField
          label="Measured by"
          width="8rem"
          value={note.who}
          oninput={(t) => (note = { ...note, who: t })}
        />
        <button class="act-main" disabled={!note.temp.trim() && !(goesOn && note.done.trim())}
          >Write it down</button
        >
      </div>
      {#if told.problem}<p role="alert" class="mt-2 text-error">{told.problem}</p>{/if}
    </form>

    <div class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
      <SpanFields {span} label="From" onpick={(next) => (span = next)} />
      <div class="flex gap-2 print:hidden">
        <button class="act h-[2.625rem] text-sm" onclick={() => window.print()}>Print</button>
        <a class="act h-[2.625rem] text-sm" href={api.checksCsv(span)} download>Save as CSV</a>
      </div>
    </div>
    {#if asked.problem}<p role="alert" class="mt-4 text-error">{asked.problem.detail}</p>{/if}
    {#if found}
      <div data-checks="ready">
        {#each newest as sheet (`${sheet.day} ${sheet.service_id}`)}
          <section class="mt-6" aria-label={`${nameOf(sheet)}, ${dayName(sheet.day)}`}>
            <h2 class="pb-1 text-[0.9375rem] font-semibold">
              {dayName(sheet.day)}: {#if sheet.service_id && sheet.name}<a
                  class="underline decoration-base-300 decoration-2 underline-offset-4"
                  href={`/services/${sheet.service_id}/checks/${sheet.day}`}>{sheet.name}</a
                >{:else}{nameOf(sheet)}{/if}
            </h2>
            {#if sheet.service_id === 0}<RecordRows
                rows={sheet.rows}
                onwrong={wrong(sheet)}
              />{:else}<RecordRows rows={sheet.rows} />{/if}
          </section>
        {:else}
          <p class="mt-6 max-w-[36rem]">Nothing was measured in these days.</p>
          <p class="mt-1 max-w-[36rem] quiet">
            Write down the fridge above; deliveries come from the shopping list, evenings from the stove.
          </p>
        {/each}
      </div>
      <p class="mt-6 max-w-[44rem] text-sm quiet">{DEFERS}</p>
    {:else if !asked.problem}<p class="mt-4 quiet" aria-busy="true">Looking up what was measured …</p>{/if}
  </main>
</Shell>
