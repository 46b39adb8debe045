<!-- A small figure with its label; tap it for the working when it has one. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  let { label, onclick, children }: { label: string; onclick?: () => void; children: Snippet } = $props();
</script>

{#if onclick}
  <button class="cursor-pointer rounded text-left hover:bg-base-200" {onclick}>
    <span class="block text-[0.8125rem] quiet">{label}</span>
    <span
      class="block text-[1.1875rem] leading-tight numeral underline decoration-base-300 decoration-2 underline-offset-4"
      >{@render children()}<span class="sr-only">, show the working</span></span
    >
  </button>
{:else}
  <div>
    <span class="block text-[0.8125rem] quiet">{label}</span>
    <span class="block text-[1.1875rem] leading-tight numeral">{@render children()}</span>
  </div>
{/if}
