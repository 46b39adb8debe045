<!-- What became of each row of a table that was read: refused ones first, each with its line and reason. -->
<script lang="ts">
  import type { RowReport } from "../../lib/api/client";
  import Sheet from "../../lib/ui/Sheet.svelte";

  let { report, onclose }: { report: RowReport[] | null; onclose: () => void } = $props();
  const count = (outcome: RowReport["outcome"]) => report?.filter((r) => r.outcome === outcome).length ?? 0;
  const refused = $derived(report?.filter((r) => r.outcome === "refused") ?? []);
</script>

<Sheet open={report != null} title="The file was read" {onclose}>
  <p>
    {count("added")} added, {count("corrected")} corrected, {count("unchanged")} as they were,
    <span class={refused.length > 0 ? "font-semibold text-error" : ""}>{refused.length} refused</span>.
  </p>
  {#if refused.length > 0}
    <table class="mt-3 w-full text-[0.875rem]">
      <thead>
        <tr class="border-b border-base-300 text-left text-[0.75rem] quiet"
          ><th class="py-1 font-normal">Line</th><th class="px-2 font-normal">Key</th><th class="font-normal"
            >Why it was refused</th
          ></tr
        >
      </thead>
      <tbody>
        {#each refused as row (row.line)}<tr class="border-b border-base-300 align-top"
            ><td class="py-1 numeral">{row.line}</td><td class="px-2 py-1 font-semibold">{row.key}</td><td
              class="py-1">{row.reason}</td
            ></tr
          >{/each}
      </tbody>
    </table>
    <p class="mt-2 text-[0.8125rem] quiet">
      Every other row was taken in. Mend these lines and send the file again.
    </p>
  {/if}
</Sheet>
