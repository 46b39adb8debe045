<!-- One quantity in the units on the screen. -->
<script lang="ts">
  import type { Amount } from "../api/client";
  import { amount } from "../format";
  import { units } from "../units.svelte";
  let { kind, value, high = null }: { kind: Amount["kind"]; value: number; high?: number | null } = $props();
</script>

<span class="whitespace-nowrap">{amount({ kind, value, high }, units)}</span>
