<!-- The ticket: name, save state and the vital figures, always in sight. Tap: its working. Tap there: its step. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Say from "../../lib/ui/Say.svelte";

  interface Props {
    bench: Bench;
    evaluation: Evaluation;
    name: string;
    onworking: (working: string, step: string) => void;
  }
  let { bench, evaluation, name, onworking }: Props = $props();

  const states = {
    saved: "Saved",
    saving: "Saving …",
    unsaved: "Not saved yet",
    away: "Not saved: the kitchen does not answer. Your edits wait here.",
    conflict: "Saved elsewhere meanwhile",
  } as const;
  const doubtful = $derived(bench.save === "away" || bench.save === "conflict");
  let draft = $state<string | null>(null);

  function rename(): void {
    const text = draft?.trim();
    draft = null;
    if (text && text !== name) bench.edit({ kind: "rename", name: text });
  }
</script>

<section
  aria-label="Ticket"
  data-settled={bench.save === "saved" && bench.waiting.length === 0}
  class="torn relative z-10 shrink-0 bg-paper pb-[9px] shadow-sm"
>
  <div class="grid grid-cols-3 sm:grid-cols-[minmax(11rem,1.15fr)_repeat(6,auto)] lg:px-1">
    <div class="col-span-3 min-w-0 px-4 pt-2 pb-1 sm:col-span-1">
      <input
        class="w-full truncate rounded bg-transparent text-[1.1875rem] leading-tight font-[680] outline-offset-2"
        aria-label="Name of the formula"
        maxlength="80"
        value={draft ?? name}
        oninput={(e) => (draft = e.currentTarget.value)}
        onblur={rename}
        onkeydown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") draft = null;
        }}
      />
      <p
        class={["text-[0.8125rem] leading-snug", doubtful ? "font-semibold text-error" : "quiet"]}
        role="status"
      >
        {states[bench.save]}{bench.waiting.length > 0 && bench.save === "away"
          ? ` (${bench.waiting.length} waiting)`
          : ""}
      </p>
    </div>
    {#each evaluation.ticket as figure (figure.id)}
      <button
        class="min-w-0 cursor-pointer border-base-300 px-3 pt-2 pb-1.5 text-left hover:bg-base-200 max-sm:border-t sm:border-l lg:px-4"
        data-ticket={figure.id}
        onclick={() => onworking(figure.working, figure.step)}
      >
        <span class="block text-[0.75rem] leading-tight quiet">{figure.label}</span>
        <span
          class={[
            "block leading-[1.2] numeral",
            figure.id === "allergens"
              ? "line-clamp-2 max-w-52 pt-0.5 text-[1rem] !leading-[1.15] !whitespace-normal"
              : "text-[1.1875rem] sm:text-[1.4375rem]",
          ]}
          data-value><Say text={figure.value} /></span
        >
        <span class="block truncate text-[0.75rem] leading-tight quiet narrow"
          ><Say text={figure.aside} /></span
        ><span class="sr-only">, show the working</span>
      </button>
    {/each}
  </div>
</section>
