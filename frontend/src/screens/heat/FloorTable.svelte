<!-- Published lines beside the computed piece: which the coldest meat meets, when, and by which hold. -->
<script lang="ts">
  import type { HeatCurve } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";

  let { curve }: { curve: HeatCurve } = $props();
  const hold = (s: number) =>
    s === 0 ? "" : s >= 120 ? ` for ${Math.round(s / 60)} min` : ` for ${Math.round(s)} s`;
</script>

<section aria-label="Published lines">
  <h2 class="text-base">Published lines, in the coldest meat</h2>
  <p class="text-[0.8125rem] leading-snug quiet">
    Met when every place has stood at the temperature for its time, resting included. The first one leads
    here.
  </p>
  <table class="mt-2 w-full text-[0.9375rem]">
    <thead class="sr-only"><tr><th>Line</th><th>Met by</th><th>Met at</th></tr></thead>
    <tbody>
      {#each curve.verdicts as line (line.key)}
        <tr class={["border-b border-base-300 align-baseline", line.leads && "font-semibold"]}>
          <th scope="row" class="py-1.5 pr-2 text-left font-[inherit]"
            >{line.authority}{#if line.leads}<span class="font-normal quiet">, leads</span>{/if}</th
          >
          <td class="py-1.5 pr-2 text-right numeral whitespace-nowrap"
            ><Qty kind="temp_c" value={line.by.temp_c} />{hold(line.by.time_s)}</td
          >
          <td
            class={[
              "w-28 py-1.5 text-right numeral whitespace-nowrap",
              line.met_at_s == null && "text-error",
            ]}
            >{#if line.met_at_s == null}not met{:else}<span class="text-success">✓</span>
              {time(line.met_at_s)}{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="mt-2 text-[0.8125rem] leading-snug quiet">
    <Say text={curve.lethality_message} />
  </p>
</section>
