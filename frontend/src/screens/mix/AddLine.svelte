<!-- What goes in, in whatever measure the cook thinks in: shown back as it was read before it is added. -->
<script lang="ts">
  import { api, ProblemError, type Formula, type MixReading } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import MarkedLine from "../../lib/ui/MarkedLine.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";

  let { bench }: { bench: Bench } = $props();
  const uid = $props.id();
  const PAUSE_MS = 350;
  let text = $state("");
  let sent = $state("");
  let read = $state.raw<MixReading | null>(null);
  let shown = $state<HTMLDivElement>();
  const refused = $derived(bench.refusal?.target === "add-to-mix" ? bench.refusal.detail : null);
  const under = $derived(bench.waiting.some((e) => e.kind === "add-to-mix"));
  const worth = $derived(
    read != null && (read.asks.length > 0 || read.pieces.some((p) => p.status !== "noise")),
  );
  $effect(() => {
    // What was refused comes back once, to be mended; what was taken is gone from the field.
    if (refused && sent) {
      text = sent;
      sent = "";
    }
  });
  $effect(() => {
    const typed = text;
    if (typed.trim().length < 2 || !bench.formula) {
      read = null;
      return;
    }
    let stale = false;
    const timer = setTimeout(async () => {
      try {
        const answer = await api.readMix(bench.formula as Formula, typed, units.system);
        if (stale) return;
        const first = read == null;
        read = answer;
        // The field stands low on the bench: what it was read as must not open below the edge.
        if (first) requestAnimationFrame(() => shown?.scrollIntoView({ block: "nearest" }));
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
      }
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  });

  function add(event: SubmitEvent): void {
    event.preventDefault();
    if (!text.trim()) return;
    sent = text;
    // An older refusal is no word on this one.
    bench.refusal = null;
    bench.edit({ kind: "add-to-mix", text });
    text = "";
  }
</script>

<form class="mt-3 border-t border-base-300 pt-3" onsubmit={add}>
  <label for={uid} class="mb-0.5 block text-[0.8125rem] quiet">What goes in</label>
  <div class="flex gap-2">
    <input
      id={uid}
      class={[
        "h-11 w-full max-w-[34rem] min-w-0 rounded-[0.25rem] border bg-paper px-3 text-[1.0625rem] placeholder:text-quiet",
        refused ? "border-error" : "border-[#8b8f8a]",
      ]}
      placeholder="1/2 cup panko, 1 egg, beaten, 2–3 cloves garlic"
      autocomplete="off"
      spellcheck="false"
      maxlength="300"
      bind:value={text}
      aria-invalid={refused ? true : undefined}
      aria-describedby={`${uid}-help`}
    />
    <button class="act-main min-h-11" disabled={under}>Add</button>
  </div>
  {#if refused}
    <p id={`${uid}-help`} role="alert" class="mt-1 text-[0.8125rem] text-error">{refused}</p>
  {:else}
    <p id={`${uid}-help`} class="mt-0.5 text-[0.75rem] quiet">
      Grams, cups, spoons, slices, cloves, cans, per cent of the meat, a pinch or a glug: for this batch as it
      stands.
    </p>
  {/if}
  {#if read && worth}
    <div class="mt-2 max-w-[40rem]" bind:this={shown}>
      <MarkedLine
        text={read.text}
        pieces={read.pieces}
        stale={read.text !== text}
        onreplace={(next) => (text = next)}
      />
      {#each read.asks as ask, n (n)}
        <div class="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="To settle">
          <span class="font-semibold"><Say text={ask.text} /></span>
          {#each ask.choices as choice, c (c)}
            <button type="button" class="act text-sm" onclick={() => (text = choice.text)}
              ><Say text={choice.label} /></button
            >
          {/each}
        </div>
      {/each}
    </div>
  {/if}
</form>
