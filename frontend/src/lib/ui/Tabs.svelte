<!-- A heading with a row of tabs beside it, and the one panel that is open below; arrow keys, Home and End move. -->
<script lang="ts">
  import { Tabs } from "bits-ui";
  import type { Snippet } from "svelte";

  interface Props {
    heading: string;
    tabs: readonly { key: string; title: string }[];
    open: string;
    onopen: (key: string) => void;
    /** What stands between the tabs and the panel, whichever is open. */
    above?: Snippet;
    children: Snippet;
  }
  let { heading, tabs, open, onopen, above, children }: Props = $props();
</script>

<Tabs.Root value={open} onValueChange={onopen}>
  <div class="flex flex-wrap items-end gap-x-6 border-b border-base-300">
    <h1 class="pb-1.5 text-2xl">{heading}</h1>
    <Tabs.List aria-label={heading} class="flex gap-x-1 max-sm:-mx-3 max-sm:flex-wrap sm:overflow-x-auto">
      {#each tabs as tab (tab.key)}
        <Tabs.Trigger
          value={tab.key}
          class="-mb-px min-h-10 cursor-pointer border-b-3 border-transparent px-3 text-[0.9375rem] whitespace-nowrap
            data-[state=active]:border-primary data-[state=active]:font-[680] data-[state=inactive]:text-quiet
            data-[state=inactive]:hover:border-base-300">{tab.title}</Tabs.Trigger
        >
      {/each}
    </Tabs.List>
  </div>
  {@render above?.()}
  {#each tabs as tab (tab.key)}
    <Tabs.Content value={tab.key}
      >{#if tab.key === open}{@render children()}{/if}</Tabs.Content
    >
  {/each}
</Tabs.Root>
