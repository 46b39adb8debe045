<!-- What hands do to the simulated scale, each with its key. -->
<script lang="ts">
  import type { WeighingAction } from "../../lib/api/client";

  interface Props {
    step_g: number;
    finished: boolean;
    onact: (action: WeighingAction["action"]) => void;
  }
  let { step_g, finished, onact }: Props = $props();
</script>

<fieldset class="mt-4 border-t border-base-300 pt-2">
  <legend class="pr-3 text-[0.8125rem] opacity-80"
    >Simulated scale, {step_g} g a step: what hands do to it</legend
  >
  <div class="mt-1.5 flex flex-wrap gap-2">
    {#each [["piece", "Lay on a piece", "P"], ["correct", "Add or pinch off", "C"], ["lift", "Take it off", "O"], ["tare", "Tare", "T"], ["paper", "Lay on a paper", ""], ["lean", "Someone leans on it", "L"]] as const as [action, title, letter] (action)}
      <button
        class="act text-sm"
        disabled={finished}
        aria-keyshortcuts={letter || undefined}
        onclick={() => onact(action)}
        >{title}{#if letter}<kbd class="ml-1 text-xs opacity-70">{letter}</kbd>{/if}</button
      >
    {/each}
  </div>
</fieldset>
