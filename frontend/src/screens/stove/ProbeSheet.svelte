<!-- A core reading, typed at the stove. -->
<script lang="ts">
  import { api, ProblemError } from "../../lib/api/client";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    open: boolean;
    onclose: () => void;
    /** The reading, °C. */
    onread: (core_c: number) => void;
  }
  let { open, onclose, onread }: Props = $props();
  let reading = $state("");
  let refused = $state<string | null>(null);

  async function takeReading(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = null;
    try {
      const { value } = await api.read("temp_c", reading, units.system);
      onread(value);
      onclose();
      reading = "";
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
</script>

<Sheet {open} title="What does the probe read?" {onclose}>
  <form class="flex gap-3" onsubmit={takeReading}>
    <input
      class="h-16 min-w-0 flex-1 rounded border-2 border-base-content px-4 text-3xl numeral"
      inputmode="decimal"
      aria-label="Core temperature"
      placeholder={units.system === "us" ? "150 F" : "66 C"}
      bind:value={reading}
    />
    <button class="act-main h-16 px-8 text-xl">Note it</button>
  </form>
  {#if refused}<p role="alert" class="mt-2 text-error">{refused}</p>{/if}
  <p class="mt-3 text-sm quiet">
    In the middle, from the side, not touching the plate. The coldest of several counts.
  </p>
</Sheet>
