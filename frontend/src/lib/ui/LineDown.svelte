<!-- That the line is down, and what waits for it. -->
<script lang="ts">
  let { old, waiting }: { old: boolean; waiting: number } = $props();
</script>

{#if old}
  <p role="status" class="mt-4 border-l-4 border-warning pl-3">
    The line is down. This is the list as it was fetched last; what you tick is kept here and sent later.
  </p>
{:else if waiting > 0}
  <p role="status" class="mt-4 border-l-4 border-warning pl-3">
    The line is down. {waiting === 1 ? "1 tick waits" : `${waiting} ticks wait`} here and will be sent.
  </p>
{/if}
