<!-- A sentence from the core in the units on the screen. -->
<script lang="ts">
  import type { Phrase } from "../api/client";
  import { phrase } from "../format";
  import { units } from "../units.svelte";
  let { text }: { text: Phrase } = $props();
</script>

{phrase(text, units)}
