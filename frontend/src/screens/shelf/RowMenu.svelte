<!-- What can be done with a formula from its line. -->
<script lang="ts">
  import { DropdownMenu } from "bits-ui";

  let { name, oncopy, onarchive }: { name: string; oncopy: () => void; onarchive: () => void } = $props();
  const entry =
    "flex min-h-11 cursor-pointer items-center px-4 font-semibold outline-none data-highlighted:bg-base-200";
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger
    class="size-11 shrink-0 cursor-pointer rounded text-xl leading-none font-bold quiet hover:bg-base-200"
    aria-label={`More: ${name}`}>⋯</DropdownMenu.Trigger
  >
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      align="end"
      sideOffset={2}
      class="z-50 min-w-40 rounded-[0.25rem] border border-base-300 bg-paper py-1 shadow-lg"
    >
      <DropdownMenu.Item class={entry} onSelect={oncopy}>Copy</DropdownMenu.Item>
      <DropdownMenu.Item class={entry} onSelect={onarchive}>Archive</DropdownMenu.Item>
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
