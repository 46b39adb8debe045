<!-- One of a few, side by side, as a radio group. -->
<script lang="ts" generics="K extends string">
  interface Props {
    label: string;
    options: readonly { key: K; title: string }[];
    value: string;
    onpick: (key: K) => void;
    showLabel?: boolean;
  }
  let { label, options, value, onpick, showLabel = true }: Props = $props();
</script>

<div role="radiogroup" aria-label={label} class="flex flex-col">
  {#if showLabel}<span class="mb-0.5 text-[0.8125rem] quiet">{label}</span>{/if}
  <div class="flex w-max max-w-full flex-wrap overflow-hidden rounded-[0.25rem] border border-[#8b8f8a]">
    {#each options as option (option.key)}
      {@const chosen = value === option.key}
      <button
        type="button"
        role="radio"
        aria-checked={chosen}
        class={[
          "h-10 cursor-pointer px-2.5 font-semibold",
          chosen ? "bg-primary text-primary-content" : "bg-paper hover:bg-base-200",
        ]}
        onclick={() => !chosen && onpick(option.key)}>{option.title}</button
      >
    {/each}
  </div>
</div>
