<!-- What is to be measured now, and what was missed: the line, a figure to type, and what to do. -->
<script lang="ts">
  import type { CheckRow } from "../../lib/api/client";
  import { phrase } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import ReadingForm from "./ReadingForm.svelte";
  import type { UnderwayBench } from "./underway.svelte";

  interface Props {
    run: UnderwayBench;
    rows: readonly CheckRow[];
    label: string;
  }
  let { run, rows, label }: Props = $props();
  const doneAt = (row: CheckRow) => `done ${row.key}`;
  const done = (row: CheckRow) => run.drafts[doneAt(row)] ?? "";
  const named = (row: CheckRow) =>
    [phrase(row.title, units), row.dish, row.what].filter((part) => part).join(", ");
</script>

<ul aria-label={label}>
  {#each rows as row (row.key)}
    {@const waits = run.waitingFor(row.key)}
    {@const read = waits.findLast((w) => w.kind === "measured")}
    <li class="border-t border-base-300 py-3" data-check={row.key} data-state={row.state}>
      <div class="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <div class="min-w-0 flex-1 basis-72">
          <span class="text-xl leading-snug font-semibold"><Say text={row.title} /></span
          >{#if row.dish || row.what}<span class="text-[#a9b5b6]"
              >, {[row.dish, row.what].filter((part) => part).join(", ")}</span
            >{/if}
          <span class="block text-lg text-[#c9d1d0]"
            ><Say text={row.line} />{#if row.state === "overdue"}<span class="text-[#ffd9a0]"
                >; was due at <span class="numeral">{row.due}</span></span
              >{/if}</span
          >
          {#if row.state === "running"}
            <span class="block text-lg text-[#ffd9a0]"
              >{#each row.readings.filter((r) => !r.taken_back).slice(-1) as r (r.token)}<Say
                  text={{ text: "{t}", amounts: { t: { kind: "temp_c", value: r.temp_c } } }}
                />
                at <span class="numeral">{r.at}</span>.{/each} Measure again at
              <span class="numeral">{row.next}</span>.</span
            >
          {/if}
          {#if waits.length > 0}<span class="block text-lg text-[#ffd9a0]"
              >{read
                ? `${read.temp} ${read.unit_system === "us" ? "°F" : "°C"} is written down here and waits for the line.`
                : "What was done waits here for the line."}</span
            >{/if}
        </div>
        <ReadingForm
          label={named(row)}
          drafts={run.drafts}
          draft={row.key}
          onread={(temp) => run.measure(row.key, temp, units.system, row.what)}
        />
      </div>
      {#if row.state === "missed"}
        <div class="mt-2 border-l-4 border-[#ffab9f] pl-3" role="alert">
          {#if row.says}<p class="text-lg font-semibold text-[#ffab9f]"><Say text={row.says} /></p>{/if}
          {#if row.corrective}<p class="mt-0.5 text-lg"><Say text={row.corrective} /></p>{/if}
          <form
            class="mt-2 flex flex-wrap items-end gap-2"
            onsubmit={(event) => {
              event.preventDefault();
              run.act(row.key, done(row).trim());
              run.drafts[doneAt(row)] = "";
            }}
          >
            <label class="min-w-0 flex-1 basis-60 text-lg"
              >What was done<span class="sr-only">: {named(row)}</span><input
                class="mt-0.5 block h-14 w-full rounded border border-[#6f7d7f] bg-base-200 px-3 text-lg"
                maxlength="200"
                autocomplete="off"
                value={done(row)}
                oninput={(e) => (run.drafts[doneAt(row)] = e.currentTarget.value)}
              /></label
            >
            <button
              class="min-h-14 cursor-pointer rounded bg-base-200 px-4 text-lg font-semibold disabled:opacity-35"
              disabled={!done(row).trim()}>That was done<span class="sr-only">: {named(row)}</span></button
            >
          </form>
        </div>
      {/if}
    </li>
  {/each}
</ul>
