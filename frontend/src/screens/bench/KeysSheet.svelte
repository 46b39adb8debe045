<script lang="ts">
  import Sheet from "../../lib/ui/Sheet.svelte";
  let { open, onclose }: { open: boolean; onclose: () => void } = $props();
  const keys: [string, string][] = [
    ["1 – 5, 8, 9", "go to a step"],
    ["↑ ↓ in a figure", "nudge it; with Shift ten steps"],
    ["← → on an edge", "move it a per cent; with Shift five"],
    ["Enter", "take what was typed"],
    ["Esc", "leave what was typed"],
    ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
    ["U", "grams and °C, or ounces and °F"],
    ["?", "this list"],
  ];
</script>

<Sheet {open} title="Keys" {onclose}>
  <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2">
    {#each keys as [key, what] (key)}
      <dt class="numeral">{key}</dt>
      <dd>{what}</dd>
    {/each}
  </dl>
  <p class="mt-4 text-sm quiet">
    Figures understand what cooks write: 1 lb 4 oz, 500g, 1/3 lb, 450F, 230 C, 2 tsp of salt.
  </p>
</Sheet>
