<!-- A row of tabs: one is open; arrow keys move between them. -->
<script lang="ts">
  interface Props {
    label: string;
    tabs: readonly { key: string; title: string }[];
    open: string;
    onopen: (key: string) => void;
  }
  let { label, tabs, open, onopen }: Props = $props();
  let row: HTMLElement;

  function move(event: KeyboardEvent, at: number): void {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const next = (at + step + tabs.length) % tabs.length;
    onopen(tabs[next]?.key ?? open);
    row.querySelectorAll<HTMLElement>("[role=tab]")[next]?.focus();
  }
</script>

<div bind:this={row} role="tablist" aria-label={label} class="flex gap-x-1 overflow-x-auto">
  {#each tabs as tab, at (tab.key)}
    <button
      role="tab"
      aria-selected={open === tab.key}
      tabindex={open === tab.key ? 0 : -1}
      class={[
        "-mb-px min-h-10 cursor-pointer border-b-3 px-3 text-[0.9375rem] whitespace-nowrap",
        open === tab.key ? "border-primary font-[680]" : "border-transparent quiet hover:border-base-300",
      ]}
      onclick={() => onopen(tab.key)}
      onkeydown={(e) => move(e, at)}>{tab.title}</button
    >
  {/each}
</div>
