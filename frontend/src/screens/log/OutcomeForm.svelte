<!-- Weigh, rate and note. Weights are read by the core as typed; nothing typed is lost when it refuses. -->
<script lang="ts">
  import { onDestroy, tick, untrack } from "svelte";
  import { api, type Cook, type Outcome } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { foundLocally, keepLocally, Outbox } from "../../lib/outbox.svelte";
  import { leadToRefused } from "../../lib/refusal";
  import { units } from "../../lib/units.svelte";
  import ScoreRow from "./ScoreRow.svelte";

  let { cook, onsaved }: { cook: Cook; onsaved: (cook: Cook) => void } = $props();
  const start: Partial<Outcome> = untrack(() => cook.outcome) ?? { note: "", next_time: "" };

  type Weighed = "cooked_mass_g" | "cooked_diameter_mm" | "cooked_thickness_mm" | "core_c";
  type Kind = "mass_g" | "length_mm" | "temp_c";
  const weighed = untrack(() => cook.measures);

  const scales = untrack(() => cook.scales);

  const said = (kind: Kind, value: number) =>
    amount(
      { kind, value },
      untrack(() => ({ system: units.system, currency: "" })),
    );
  let texts = $state<Partial<Record<Weighed, string>>>(
    Object.fromEntries(
      weighed.map(({ key, kind }) => {
        const value = start[key];
        return [key, value == null ? "" : said(kind, value)];
      }),
    ),
  );
  const before = { ...untrack(() => texts) };
  let scores = $state<Record<string, number | null>>(
    Object.fromEntries(scales.map((s) => [s.key, start[s.key] ?? null])),
  );
  let note = $state(start.note ?? "");
  let next_time = $state(start.next_time ?? "");
  let refused = $state<{ field: string; detail: string } | null>(null);
  let saved = $state(false);

  /** What was written and waits to reach the logbook: texts as typed, and the page it was written on. */
  interface Written {
    texts: Partial<Record<Weighed, string>>;
    scores: Record<string, number | null>;
    note: string;
    next_time: string;
    revision: number;
  }
  /** Which field is being read, so that a refusal stands beside it. */
  let reading = "";
  let form = $state<HTMLFormElement>();
  const place = `vianda.outcome.${untrack(() => cook.id)}`;
  const outbox = new Outbox<Written>({
    keep: (items) => keepLocally(place, items),
    send: deliver,
    refused: (_, problem) => {
      const pointer = problem.fields?.[0]?.pointer ?? "";
      refused =
        problem.status === 409
          ? {
              field: "",
              detail:
                "Another window noted this cook meanwhile. Your text stays here; open the page again to see theirs.",
            }
          : { field: reading || (pointer.split("/").at(-1) ?? ""), detail: problem.detail };
      void tick().then(() => leadToRefused(form));
    },
  });
  // What a closed window left behind is shown as it was typed, and sent.
  const left = foundLocally<Written>(place);
  const last = left.at(-1);
  if (last) {
    Object.assign(
      untrack(() => texts),
      last.texts,
    );
    Object.assign(
      untrack(() => scores),
      last.scores,
    );
    note = last.note;
    next_time = last.next_time;
    outbox.restore(left);
  }
  onDestroy(() => outbox.close());

  async function deliver(written: Written): Promise<void> {
    // What is not asked of this form stays as it was written down.
    const outcome: Record<string, unknown> = {
      ...start,
      note: written.note,
      next_time: written.next_time,
      ...written.scores,
    };
    for (const { key, kind } of weighed) {
      reading = key;
      const text = written.texts[key]?.trim() ?? "";
      if (text === (before[key] ?? "").trim()) outcome[key] = start[key] ?? null;
      else outcome[key] = text ? (await api.read(kind, text, units.system)).value : null;
    }
    reading = "";
    const now = await api.saveOutcome(cook.id, outcome as Outcome, written.revision);
    keepLocally(place, []);
    onsaved(now);
    saved = true;
  }

  function save(event: SubmitEvent): void {
    event.preventDefault();
    refused = null;
    saved = false;
    const written = {
      texts: { ...texts },
      scores: { ...scores },
      note,
      next_time,
      revision: cook.revision,
    };
    // Pressed again while the line is down: the newer text goes, not both.
    if (outbox.items.length > 0) outbox.overtake(written);
    else outbox.push(written);
  }
</script>

<form bind:this={form} onsubmit={save}>
  <h2 class="text-lg">Weigh, rate and note</h2>
  <div class="mt-2 flex flex-wrap gap-x-4 gap-y-3">
    {#each weighed as w (w.key)}
      <div class="w-[7.875rem]">
        <label class="mb-0.5 block text-[0.8125rem] quiet" for={w.key}>{w.title}</label>
        <input
          id={w.key}
          class={[
            "h-11 w-full rounded-[0.25rem] border bg-paper px-2.5 text-[1.0625rem] numeral placeholder:font-normal",
            refused?.field === w.key ? "border-error" : "border-[#8b8f8a]",
          ]}
          placeholder={`about ${said(w.kind, w.expected)}`}
          aria-invalid={refused?.field === w.key ? true : undefined}
          aria-describedby={refused?.field === w.key ? "not-measured" : undefined}
          autocomplete="off"
          bind:value={texts[w.key]}
        />
      </div>
    {/each}
  </div>
  {#if refused && weighed.some((w) => w.key === refused?.field)}<p
      id="not-measured"
      role="alert"
      class="mt-1.5 text-[0.9375rem] text-error"
    >
      {refused.detail}
    </p>{/if}
  <p class="mt-4 text-[0.8125rem] quiet">A bar under a number: where it is wanted.</p>
  <div class="mt-1.5 grid gap-x-8 gap-y-2 lg:grid-cols-2">
    {#each scales as scale (scale.key)}
      <ScoreRow
        label={scale.title}
        low={scale.low}
        high={scale.high}
        wanted={scale.wanted}
        value={scores[scale.key] ?? null}
        onscore={(n) => (scores[scale.key] = n)}
      />
    {/each}
  </div>
  <label class="mt-4 mb-0.5 block text-[0.8125rem] quiet" for="note">What happened</label>
  <textarea
    id="note"
    class="block h-20 w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper p-2.5"
    maxlength="4000"
    bind:value={note}></textarea>
  <label class="mt-3 mb-0.5 block text-[0.8125rem] quiet" for="next">The one thing to change next time</label>
  <input
    id="next"
    class="h-11 w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5"
    maxlength="1000"
    bind:value={next_time}
  />
  {#if refused && !weighed.some((w) => w.key === refused?.field)}<p role="alert" class="mt-2 text-error">
      {refused.detail}
    </p>{/if}
  <div class="mt-4 flex items-center gap-4">
    <button class="act-main" disabled={outbox.items.length > 0 && !outbox.away}
      >Write it into the logbook</button
    >
    {#if outbox.away}<span role="status" class="font-semibold text-warning"
        >Not written yet: Vianda does not answer. It is kept here and sent as soon as it does.</span
      >
    {:else if saved || (cook.outcome && outbox.items.length === 0 && !refused)}<span
        role="status"
        class="quiet">Written</span
      >{/if}
  </div>
</form>
