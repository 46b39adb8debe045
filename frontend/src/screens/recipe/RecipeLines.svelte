<!-- The recipe beside what each of its lines became. -->
<script lang="ts">
  import type { RecipeLine } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  let { lines }: { lines: readonly RecipeLine[] } = $props();
  const kinds: Record<RecipeLine["became"], string> = {
    title: "name",
    yield: "yield",
    heading: "",
    meat: "meat",
    mix: "mix",
    salt: "salt",
    sauce: "sauce",
    serving: "served with",
    heat: "heat",
    shape: "shape",
    note: "note",
    waiting: "waits",
  };
</script>

<table class="w-full text-left text-[0.9375rem]">
  <caption class="sr-only">Each line of the recipe and what it became</caption>
  <thead class="sr-only"><tr><th>Line</th><th>Part</th><th>Read as</th></tr></thead>
  <tbody>
    {#each lines as line (line.place)}
      {#if line.became === "heading"}
        <tr><td colspan="3" class="pt-3 pb-1 text-sm font-semibold">{line.text}</td></tr>
      {:else}
        <tr class="border-b border-base-300 align-top">
          <td class="py-1.5 pr-4">{line.text}</td>
          <td
            class={[
              "w-24 py-1.5 pr-3 text-[0.8125rem]",
              line.became === "waiting" ? "text-warning" : "text-primary",
            ]}>{kinds[line.became]}</td
          >
          <td class="w-[38%] py-1.5 text-[0.875rem] quiet"><Say text={line.label} /></td>
        </tr>
      {/if}
    {/each}
  </tbody>
</table>
