<!-- How many came, and how many will: written down after the evening, planned for before the next. -->
<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import { api, type Forecast, type Service } from "../../lib/api/client";
  import { today } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import { dayName } from "../../lib/days";

  interface Props {
    counts: Service["counts"];
    onchange: (counts: Service["counts"]) => void;
    /** Plan for so many guests. */
    onplan: (guests: number) => void;
  }
  let { counts, onchange, onplan }: Props = $props();
  const told = new Told();
  const foretold = new Resource<Service["counts"], { forecast?: Forecast | null }>((now, signal) =>
    api.covers(now, signal),
  );
  $effect(() => {
    if (counts.length > 0) return foretold.ask(counts);
    foretold.clear();
  });
  let typed = $state({ day: today(), guests: "", left: "", lacking: "" });
  const listed = $derived([...counts].sort((a, b) => (a.day < b.day ? 1 : -1)));
  const whole = async (text: string) =>
    text.trim() ? Math.round((await api.read("number", text, units.system)).value) : 0;

  function note(event: SubmitEvent): void {
    event.preventDefault();
    void told.run(async () => {
      const count = {
        day: typed.day,
        guests: await whole(typed.guests),
        left: await whole(typed.left),
        lacking: await whole(typed.lacking),
      };
      // Written down again, a day is corrected.
      onchange([...counts.filter((c) => c.day !== count.day), count]);
      typed = { day: today(), guests: "", left: "", lacking: "" };
    });
  }
</script>

<section class="mt-8" aria-label="How many came">
  <h2 class="text-xl font-semibold">How many came</h2>
  {#if foretold.value?.forecast}
    {@const f = foretold.value.forecast}
    <div class="mt-2 flex flex-wrap items-center gap-3">
      <p class="max-w-[36rem]" role="status"><Say text={f.says} /></p>
      <button class="act text-sm" onclick={() => onplan(f.enough)}>Plan for {f.enough}</button>
    </div>
  {:else}
    <p class="mt-1 max-w-[36rem] quiet">
      {counts.length === 0
        ? "Write down after each evening how many were served: from three on, the next is foretold."
        : counts.length === 1
          ? "One evening is written down; from three on, the next is foretold."
          : "Two evenings are written down; from three on, the next is foretold."}
    </p>
  {/if}
  <form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={note} aria-label="An evening">
    <TextField label="On" type="date" width="10rem" value={typed.day} oninput={(t) => (typed.day = t)} />
    <TextField label="Served" width="5.5rem" value={typed.guests} oninput={(t) => (typed.guests = t)} />
    <TextField
      label="Portions left"
      width="6.5rem"
      value={typed.left}
      placeholder="0"
      oninput={(t) => (typed.left = t)}
    />
    <TextField
      label="Went without"
      width="6.5rem"
      value={typed.lacking}
      placeholder="0"
      oninput={(t) => (typed.lacking = t)}
    />
    <button class="act h-[2.625rem]" disabled={!typed.guests.trim() || !typed.day}>Write it down</button>
  </form>
  {#if told.problem}<p role="alert" class="mt-2 text-error">{told.problem}</p>{/if}
  {#if listed.length > 0}
    <table class="mt-4 w-full max-w-[36rem] text-[0.9375rem]">
      <thead
        ><tr class="border-b-2 border-base-content text-left text-[0.8125rem] quiet"
          ><th class="py-1 font-normal">Day</th><th class="w-[22%] text-right font-normal">Served</th><th
            class="w-[22%] text-right font-normal">Left</th
          ><th class="w-[26%] text-right font-normal">Went without</th><th
            ><span class="sr-only">Strike out</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each listed as c (c.day)}
          <tr class="border-b border-base-300">
            <td class="py-1">{dayName(c.day)}</td>
            <td class="text-right numeral">{c.guests}</td>
            <td class="text-right numeral">{c.left || ""}</td>
            <td class="text-right numeral">{c.lacking || ""}</td>
            <td class="w-12 text-right"
              ><button
                class="grid size-9 cursor-pointer place-items-center rounded hover:bg-base-200"
                onclick={() => onchange(counts.filter((one) => one.day !== c.day))}
                ><Trash size={16} aria-hidden="true" /><span class="sr-only">Strike out {dayName(c.day)}</span
                ></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>
