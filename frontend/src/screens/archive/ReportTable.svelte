<!-- What an archive does to each part of a kitchen, counted; what needs a word, item by item. -->
<script lang="ts">
  import type { ArchiveReport } from "../../lib/api/client";

  let { report }: { report: ArchiveReport } = $props();
  const parts = $derived(report.parts.filter((p) => p.added + p.changed + p.same + p.skipped > 0));
  const word = { added: "added", changed: "changed", same: "as it is", skipped: "left out" };
</script>

{#snippet count(n: number, strong: boolean)}
  <td class={["py-1 pl-2 text-right numeral", (n === 0 || !strong) && "font-normal", n === 0 && "quiet"]}
    >{n}</td
  >
{/snippet}

<table class="mt-3 w-full text-[0.9375rem]">
  <thead>
    <tr class="border-b border-base-content text-right text-[0.8125rem] [overflow-wrap:normal] quiet">
      <th class="py-1 text-left font-normal">Part</th><th class="pl-2 font-normal">Added</th><th
        class="pl-2 font-normal">Changed</th
      ><th class="pl-2 font-normal">The same</th><th class="pl-2 font-normal">Left out</th>
    </tr>
  </thead>
  <tbody>
    {#each parts as part (part.part)}
      <tr class="border-b border-base-300">
        <th scope="row" class="py-1 text-left font-semibold">{part.title}</th>
        {@render count(part.added, true)}{@render count(part.changed, true)}{@render count(part.same, false)}
        {@render count(part.skipped, true)}
      </tr>
      {#if part.lines.length > 0}
        <tr class="border-b border-base-300"
          ><td colspan="5" class="pb-2">
            <details>
              <summary class="min-h-8 cursor-pointer text-[0.875rem] text-primary"
                >{part.title}: item by item</summary
              >
              <ul class="text-[0.875rem]">
                {#each part.lines as line, at (at)}
                  <li class="flex flex-wrap gap-x-2 py-0.5">
                    {#if line.name}<span class="font-semibold">{line.name}</span><span
                        >{word[line.outcome]}</span
                      >{/if}
                    {#if line.reason}<span class="quiet">{line.reason}</span>{/if}
                  </li>
                {/each}
                {#if part.more > 0}<li class="quiet">and {part.more} more</li>{/if}
              </ul>
            </details>
          </td></tr
        >
      {/if}
    {/each}
  </tbody>
</table>
