<!-- One line of what goes in, in whatever measure the cook thinks in. The core reads it. -->
<script lang="ts">
  import type { Bench } from "../../lib/bench.svelte";

  let { bench }: { bench: Bench } = $props();
  const uid = $props.id();
  let text = $state("");
  let sent = $state("");
  const refused = $derived(bench.refusal?.target === "add-to-mix" ? bench.refusal.detail : null);
  const under = $derived(bench.waiting.some((e) => e.kind === "add-to-mix"));
  $effect(() => {
    // What was refused comes back once, to be mended; what was taken is gone from the field.
    if (refused && sent) {
      text = sent;
      sent = "";
    }
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
      placeholder="1/2 cup panko, 1 large egg + 3 yolks, 2 cloves garlic"
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
      Grams, cups, spoons, slices, cloves, per cent of the meat, a pinch or a glug: for this batch as it
      stands.
    </p>
  {/if}
</form>
