<!-- Checks that ask for nothing now: what comes, what was measured; and one that nobody planned. -->
<script lang="ts">
  import type { CheckKind, CheckRow } from "../../lib/api/client";
  import { phrase } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import { KINDS } from "../checks/record";
  import ReadingForm from "./ReadingForm.svelte";
  import type { UnderwayBench } from "./underway.svelte";

  interface Props {
    run: UnderwayBench;
    rows: readonly CheckRow[];
    /** Nothing stands above it. */
    first: boolean;
    /** The server has said what was measured. */
    known: boolean;
  }
  let { run, rows, first, known }: Props = $props();
  const OUTCOMES: Partial<Record<CheckRow["state"], string>> = {
    kept: "kept",
    settled: "missed, and seen to",
    missed: "missed",
  };
  let open = $state(false);
  let kind = $state<CheckKind>("cool");
  let what = $state("");
  const coming = $derived(rows.filter((row) => row.state === "coming"));
  const measured = $derived(rows.filter((row) => row.readings.length + row.actions.length > 0));
  const field = "mt-0.5 block h-14 w-full rounded border border-[#6f7d7f] bg-base-200 px-3 text-lg";
</script>

{#snippet named(row: CheckRow)}
  <Say text={row.title} />{row.dish ? `, ${row.dish}` : ""}{row.what ? `, ${row.what}` : ""}
{/snippet}
<h2 class={["text-lg text-[#a9b5b6]", !first && "mt-6"]}>Measured</h2>
{#if measured.length > 0}
  <ul aria-label="Measured">
    {#each measured as row (row.key)}
      <li class="border-t border-base-300 py-2" data-check={row.key} data-state={row.state}>
        <span class={row.state === "missed" ? "text-[#ffab9f]" : ""}>{@render named(row)}</span>
        <span class="text-[#a9b5b6]"
          >{row.state === "running"
            ? `again at ${row.next}`
            : (OUTCOMES[row.state] ?? "still to measure")}</span
        >
        {#each row.readings as r (r.token)}
          <span class="flex flex-wrap items-center justify-between gap-x-3">
            <span class={["text-lg numeral", r.taken_back && "text-[#a9b5b6] line-through"]}
              ><Say text={{ text: "{t}", amounts: { t: { kind: "temp_c", value: r.temp_c } } }} />
              <span class="text-[#a9b5b6]">{r.at}{r.who ? `, ${r.who}` : ""}</span></span
            >
            {#if !r.taken_back}<button
                class="min-h-14 cursor-pointer px-2 text-[#a9b5b6] underline underline-offset-4"
                onclick={() => run.takeBackOf(r.token)}
                >Typed wrong<span class="sr-only">: {@render named(row)} at {r.at}</span></button
              >{/if}
          </span>
        {/each}
        {#if row.state === "running"}<ReadingForm
            label={phrase(row.title, units)}
            drafts={run.drafts}
            draft={row.key}
            onread={(temp) => run.measure(row.key, temp, units.system, row.what)}
          />{/if}
        {#each row.actions as a (a.token)}<span class="block"
            >{a.remark}
            <span class="numeral text-[#a9b5b6]">{a.at}{a.who ? `, ${a.who}` : ""}</span></span
          >{/each}
      </li>
    {/each}
  </ul>
{:else}<p class="mt-1 text-[#a9b5b6]">
    {known
      ? "Nothing yet."
      : "Not known yet: the line is down, or it is being asked. What you measure here is kept."}
  </p>{/if}
{#if coming.length > 0}
  <h2 class="mt-6 text-lg text-[#a9b5b6]">To measure later</h2>
  <ol aria-label="To measure later">
    {#each coming as row (row.key)}
      <li class="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-x-3 border-t border-base-300 py-1.5">
        <span class="text-lg numeral">{row.due}</span>
        <span>{@render named(row)}<span class="block text-[#a9b5b6]"><Say text={row.line} /></span></span>
      </li>
    {/each}
  </ol>
{/if}
<div class="mt-4 flex flex-wrap items-end gap-3">
  <label class="text-lg text-[#a9b5b6]"
    >Measured by<input
      class="mt-0.5 block h-14 w-40 rounded border border-[#6f7d7f] bg-base-200 px-3 text-lg text-base-content"
      maxlength="40"
      autocomplete="off"
      value={run.who}
      onchange={(e) => run.measuredBy(e.currentTarget.value)}
    /></label
  >
  <button
    class="min-h-14 cursor-pointer rounded bg-base-200 px-5 text-lg font-semibold"
    aria-expanded={open}
    onclick={() => (open = !open)}>Measure something else</button
  >
  <a
    class="flex min-h-14 items-center underline underline-offset-4"
    href={`/services/${run.service_id}/checks/${run.day}`}>The record</a
  >
</div>
{#if open}
  <div class="mt-3 border-t border-base-300 pt-3" role="group" aria-label="Something else">
    <div class="grid gap-3 sm:grid-cols-2">
      <label class="text-lg"
        >Kind<select class={field} bind:value={kind}>
          {#each KINDS as one (one.key)}<option value={one.key}>{one.title}</option>{/each}
        </select></label
      >
      <label class="text-lg"
        >What<input class={field} maxlength="120" autocomplete="off" bind:value={what} /></label
      >
    </div>
    <div class="mt-3">
      <ReadingForm
        label={what.trim() || "Something else"}
        drafts={run.drafts}
        draft="something else"
        onread={(temp) => {
          run.measure(run.newCheck(kind), temp, units.system, what.trim());
          what = "";
          open = false;
        }}
      />
    </div>
  </div>
{/if}
