<!-- How the stove calls: chime, voice, buzz; each switched on or off for this device. -->
<script lang="ts">
  import { cues, WAYS, type Way } from "../cues.svelte";

  const TITLES: Record<Way, string> = { sound: "Chime", voice: "Voice", buzz: "Buzz" };
</script>

<span role="group" aria-label="How it calls" class="flex gap-x-1">
  {#each WAYS as way (way)}
    <button
      role="switch"
      aria-checked={cues.on.includes(way)}
      class={[
        "min-h-11 cursor-pointer rounded px-2.5 text-base",
        cues.on.includes(way) ? "bg-base-200 text-base-content" : "line-through opacity-70",
      ]}
      onclick={() => cues.set(way, !cues.on.includes(way))}>{TITLES[way]}</button
    >
  {/each}
</span>
