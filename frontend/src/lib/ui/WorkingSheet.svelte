<!-- The working of a figure: the arithmetic with the numbers in it, and the source. -->
<script lang="ts">
  import type { Working } from "../api/client";
  import Say from "./Say.svelte";
  import Sheet from "./Sheet.svelte";

  interface Props {
    working: Working | null;
    onclose: () => void;
    ondecide?: (() => void) | null;
    decideTitle?: string;
  }
  let { working, onclose, ondecide = null, decideTitle = "" }: Props = $props();
</script>

<Sheet open={working != null} title={working?.title ?? ""} {onclose}>
  {#if working}
    <ol class="space-y-1.5 border-l-2 border-primary/40 pl-4">
      {#each working.steps as step, at (at)}
        <li class={at === working.steps.length - 1 ? "font-semibold" : ""}><Say text={step} /></li>
      {/each}
    </ol>
    <p class="mt-4 text-sm quiet"><span class="font-semibold">Source.</span> {working.source}</p>
    {#if ondecide}
      <button class="mt-4 act" onclick={ondecide}>{decideTitle}</button>
    {/if}
  {/if}
</Sheet>
