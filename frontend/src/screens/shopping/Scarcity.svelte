<!-- What if no more meat comes: who goes short, and by how much. -->
<script lang="ts">
  import { api, type GoesShort } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { Told } from "../../lib/told.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import type { Span } from "../../lib/ui/SpanFields.svelte";
  import { units } from "../../lib/units.svelte";

  let { span }: { span: Span } = $props();
  const told = new Told();
  let open = $state(false);
  let found = $state.raw<GoesShort[] | null>(null);
  $effect(() => {
    if (!open) return;
    const asked = { ...span, unit_system: units.system };
    void told.run(async () => void (found = await api.scarcity(asked)));
  });
</script>

<details class="mt-8 print:hidden" bind:open>
  <summary class="cursor-pointer text-[0.9375rem] font-semibold">If no more meat comes</summary>
  {#if told.problem}<p role="alert" class="mt-2 text-error">{told.problem}</p>
  {:else if found === null}<p class="mt-2 quiet" aria-busy="true">Sharing it out …</p>
  {:else if found.length === 0}<p class="mt-2">What is here is enough for all.</p>
  {:else}
    <ul class="mt-1" aria-label="Who goes short">
      {#each found as s, n (n)}
        <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5">
          <span>{s.dish}, {dayName(s.day)}</span>
          <span class="text-right numeral"><Qty kind="mass_g" value={s.lacks_g} /> short</span>
          <span class="text-sm quiet">of <Qty kind="mass_g" value={s.wants_g} /> {s.meat}</span>
        </li>
      {/each}
    </ul>
  {/if}
</details>
