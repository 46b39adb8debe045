<!-- Cooks who are away for a while: typed, or read from a calendar file. -->
<script lang="ts">
  import type { Timetable, Timing, TimingEdit } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";

  interface Props {
    timing: Timing;
    /** Who is away, as the timetable has it on the clock. */
    away: Timetable["away"];
    onedit: (edit: TimingEdit) => void;
    /** A calendar file of a cook was chosen; absent where there is no day to read it for. */
    oncalendar?: (cook: number, text: string) => void;
  }
  let { timing, away, onedit, oncalendar }: Props = $props();
  let cook = $state(1);
  let from = $state("");
  let to = $state("");
  const uid = $props.id();
  const who = $derived(Math.min(cook, timing.cooks));
  const cooks = $derived(
    Array.from({ length: timing.cooks }, (_, n) => ({ key: String(n + 1), title: `Cook ${n + 1}` })),
  );
  const field =
    "mt-0.5 block h-[2.625rem] w-24 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base numeral text-base-content";

  function add(event: SubmitEvent): void {
    event.preventDefault();
    onedit({ kind: "add-away", cook: who, from_text: from, to_text: to });
    from = to = "";
  }
  async function read(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    const text = await file.text();
    input.value = "";
    oncalendar?.(who, text);
  }
</script>

<details class="mt-6 border-t-2 border-base-content pt-3" open={timing.away.length > 0}>
  <summary class="cursor-pointer text-lg font-semibold">Who is away</summary>
  {#if away.length > 0}
    <ul class="mt-1" aria-label="Away">
      {#each cooks as one (one.key)}
        {@const times = away.filter((a) => a.lane === `cook-${Number(one.key) - 1}`)}
        {#if times.length > 0}
          <li class="flex items-center gap-4 border-b border-base-300 py-1.5">
            <span class="font-semibold">{one.title}</span>
            <span class="grow numeral">{times.map((a) => `${a.starts}–${a.ends}`).join(", ")}</span>
            <button class="act text-sm" onclick={() => onedit({ kind: "drop-away", cook: Number(one.key) })}
              >There after all</button
            >
          </li>
        {/if}
      {/each}
    </ul>
  {/if}
  <form class="mt-2 flex flex-wrap items-end gap-3" onsubmit={add} aria-label="A cook is away">
    <PickField label="Who" value={String(who)} options={cooks} onpick={(key) => (cook = Number(key))} />
    <label class="block text-[0.8125rem] quiet"
      >From<input class={field} bind:value={from} placeholder="17:00" autocomplete="off" /></label
    >
    <label class="block text-[0.8125rem] quiet"
      >until<input class={field} bind:value={to} placeholder="17:45" autocomplete="off" /></label
    >
    <button class="act h-[2.625rem]">{from.trim() || to.trim() ? "Away then" : "Away all day"}</button>
    {#if oncalendar}
      <label
        for={uid}
        class="act h-[2.625rem] cursor-pointer focus-within:outline-2 focus-within:outline-offset-2"
        >Read their calendar<input
          id={uid}
          type="file"
          accept=".ics,text/calendar"
          class="sr-only"
          onchange={(e) => void read(e.currentTarget)}
        /></label
      >
    {/if}
  </form>
  {#if oncalendar}<p class="mt-1 text-[0.8125rem] quiet">
      An iCalendar file: what is busy on the day of the service counts as away.
    </p>{/if}
</details>
