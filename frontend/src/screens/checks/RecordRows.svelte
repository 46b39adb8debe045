<!-- Checks of a record: each with its line, what was read and by whom, what was done, and what came of it. -->
<script lang="ts">
  import type { CheckRow } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  interface Props {
    rows: readonly CheckRow[];
    label?: string;
    /** A reading can be struck out here. */
    onwrong?: (token: string) => void;
  }
  let { rows, label = "Checks", onwrong }: Props = $props();
  const OUTCOMES: Record<CheckRow["state"], string> = {
    coming: "To come",
    due: "Due",
    overdue: "Overdue",
    running: "",
    kept: "Kept",
    missed: "Missed",
    settled: "Missed, and seen to",
    unfinished: "Not measured to the end",
    "not-measured": "Not measured",
  };
</script>

<ul class="border-t-2 border-base-content" aria-label={label}>
  {#each rows as row (row.key)}
    <li
      class="grid break-inside-avoid grid-cols-[4rem_minmax(0,1fr)] gap-x-4 gap-y-1 border-b border-base-300 py-2.5 md:grid-cols-[4rem_minmax(0,1.3fr)_minmax(0,1fr)_12rem]"
      data-check={row.key}
      data-state={row.state}
    >
      <span class="numeral">{row.due || row.readings[0]?.at || row.actions[0]?.at || ""}</span>
      <span class="min-w-0">
        <span class="font-semibold"><Say text={row.title} /></span>{#if row.dish || row.what}<span
            >, {[row.dish, row.what].filter((p) => p).join(", ")}</span
          >{/if}
        <span class="block text-sm quiet"><Say text={row.line} /> ({row.limit.source})</span>
      </span>
      <span class="max-md:col-start-2">
        {#each row.readings as r (r.token)}
          <span class={["block", r.taken_back && "quiet line-through"]}
            ><span class="numeral font-semibold"
              ><Say text={{ text: "{t}", amounts: { t: { kind: "temp_c", value: r.temp_c } } }} /></span
            >
            <span class="quiet">{r.at}{r.who ? `, ${r.who}` : ""}</span>{#if onwrong && !r.taken_back}<button
                class="ml-3 cursor-pointer text-sm text-primary underline underline-offset-3 print:hidden"
                onclick={() => onwrong(r.token)}>Typed wrong</button
              >{/if}</span
          >
        {/each}
        {#each row.actions as a (a.token)}
          <span class="block">{a.remark} <span class="quiet">{a.at}{a.who ? `, ${a.who}` : ""}</span></span>
        {/each}
      </span>
      <span
        class={[
          "font-semibold max-md:col-start-2 md:text-right",
          ["missed", "overdue", "unfinished", "not-measured"].includes(row.state) && "text-error",
        ]}>{row.state === "running" ? `Again at ${row.next}` : OUTCOMES[row.state]}</span
      >
    </li>
  {/each}
</ul>
