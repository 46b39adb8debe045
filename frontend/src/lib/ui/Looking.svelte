<!-- A search under way: how far it is and how to stop it; once stopped, how to begin again. -->
<script lang="ts">
  import type { Searching } from "../search.svelte";

  interface Props {
    search: Searching;
    /** What is looked for: "a timetable". */
    what: string;
  }
  let { search, what }: Props = $props();
  const far = $derived(search.busy ? search.looking : null);
</script>

{#if far}
  <p class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1" aria-busy="true">
    <span class="quiet"
      >Looking for {what}: <span class="numeral">{far.plans}</span>
      {far.plans === 1 ? "plan" : "plans"} tried in
      <span class="numeral">{Math.round(far.seconds)} s</span></span
    >
    <button class="act text-sm" onclick={() => search.stop()}>Stop looking</button>
  </p>
{:else if search.stopped}
  <p class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1" role="status">
    <span
      >Stopped before {what} was found{search.value
        ? ". What stands here is of before the change"
        : ""}.</span
    >
    <button class="act text-sm" onclick={() => search.again()}>Look again</button>
  </p>
{/if}
