<!-- One of a few, side by side, as a radio group: arrow keys choose. -->
<script lang="ts" generics="K extends string">
  import { RadioGroup } from "bits-ui";

  interface Props {
    label: string;
    options: readonly { key: K; title: string }[];
    value: string;
    onpick: (key: K) => void;
    showLabel?: boolean;
  }
  let { label, options, value, onpick, showLabel = true }: Props = $props();
</script>

<RadioGroup.Root
  aria-label={label}
  class="flex flex-col"
  {value}
  onValueChange={(key) => key !== value && onpick(key as K)}
>
  {#if showLabel}<span class="mb-0.5 text-[0.8125rem] quiet">{label}</span>{/if}
  <div class="flex w-max max-w-full flex-wrap overflow-hidden rounded-[0.25rem] border border-[#8b8f8a]">
    {#each options as option (option.key)}
      <RadioGroup.Item
        value={option.key}
        class="h-10 cursor-pointer px-2.5 font-semibold data-[state=checked]:bg-primary
          data-[state=checked]:text-primary-content data-[state=unchecked]:bg-paper
          data-[state=unchecked]:hover:bg-base-200">{option.title}</RadioGroup.Item
      >
    {/each}
  </div>
</RadioGroup.Root>
