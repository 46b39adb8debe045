<!-- A thermometer read at the stove: of a core or of the surface, typed or as the simulated one shows it. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { refusalOf } from "../../lib/refusal";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    open: boolean;
    cook: number;
    of: "core" | "surface";
    /** Seconds since the cook began. */
    now: number;
    onclose: () => void;
    /** The reading, °C. */
    onread: (temp_c: number) => void;
  }
  let { open, cook, of, now, onclose, onread }: Props = $props();
  let reading = $state("");
  let refused = $state<string | null>(null);
  const sample = $derived(amount({ kind: "temp_c", value: of === "core" ? 66 : 230 }, units));

  async function take(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = await refusalOf(async () => {
      const { value } = await api.read("temp_c", reading, units.system);
      onread(value);
      onclose();
      reading = "";
    });
  }
  async function simulate(): Promise<void> {
    refused = await refusalOf(async () => {
      const { shown_c } = await api.simulatedReading(cook, of, now);
      // Typed in as any reading is: the cook sees it before it counts.
      reading = amount({ kind: "temp_c", value: shown_c }, units);
    });
  }
</script>

<Sheet {open} title={of === "core" ? "What does the probe read?" : "What does the surface read?"} {onclose}>
  <form class="flex gap-3" onsubmit={take}>
    <input
      class="h-16 min-w-0 flex-1 rounded border-2 border-base-content px-4 text-3xl numeral"
      inputmode="decimal"
      aria-label={of === "core" ? "Core temperature" : "Surface temperature"}
      placeholder={sample}
      bind:value={reading}
    />
    <button class="act-main h-16 px-8 text-xl">Note it</button>
  </form>
  {#if refused}<p role="alert" class="mt-2 text-error">{refused}</p>{/if}
  <p class="mt-3 text-sm quiet">
    {of === "core"
      ? "In the middle, from the side, not touching the plate. The coldest of several counts."
      : "On dry metal, where the pieces will lie. It counts for the wave that is laid on next."}
  </p>
  <button type="button" class="mt-4 act min-h-14 px-5" onclick={simulate}
    >Read the simulated {of === "core" ? "probe" : "thermometer"}</button
  >
</Sheet>
