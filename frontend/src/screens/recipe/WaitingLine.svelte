<!-- A line that waits: what is open, ways to settle it by a tap, or the line written anew. -->
<script lang="ts">
  import type { RecipeLine } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  interface Props {
    line: RecipeLine;
    stale: boolean;
    onsettle: (text: string) => void;
  }
  let { line, stale, onsettle }: Props = $props();
  let written = $state<string | null>(null);
</script>

<li class="border-b border-base-300 py-2.5 last:border-b-0">
  <p class="font-semibold">{line.text}</p>
  <p class="text-[0.875rem] text-warning"><Say text={line.label} /></p>
  <div class="mt-1.5 flex flex-wrap gap-2">
    {#each line.choices as choice, n (n)}
      <button class="act text-sm" disabled={stale} onclick={() => onsettle(choice.text)}
        ><Say text={choice.label} /></button
      >
    {/each}
    {#if written == null}
      <button class="act text-sm" onclick={() => (written = line.text)}>Write it otherwise</button>
    {/if}
  </div>
  {#if written != null}
    <form
      class="mt-2 flex gap-2"
      onsubmit={(e) => {
        e.preventDefault();
        onsettle(written ?? "");
      }}
    >
      <input
        class="h-11 min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-3"
        aria-label={`The line “${line.text}” written otherwise`}
        maxlength="200"
        bind:value={written}
      />
      <button class="act">Take it</button>
    </form>
  {/if}
</li>
