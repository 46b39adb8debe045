<!-- Cubes in the freezer before grinding: until they are firm but not solid. -->
<script lang="ts">
  import { api, ProblemError, type Formula } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

  let { formula }: { formula: Formula } = $props();
  let edge = $state(units.system === "us" ? "1.1 in" : "28 mm");
  type Told = { of: Formula; firm_s?: number; solid_s?: number; problem?: string };
  let told = $state.raw<Told | null>(null);
  const shown = $derived(told?.of === formula ? told : null);

  async function ask(): Promise<void> {
    const of = formula;
    try {
      const edge_mm = (await api.read("length_mm", edge, units.system)).value;
      told = { of, ...(await api.firming(of, edge_mm)) };
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      told = { of, problem: error.problem.detail };
    }
  }
</script>

<section aria-label="Cubes in the freezer">
  <h2 class="text-base">Cubes in the freezer, before grinding</h2>
  <form
    class="mt-1 flex flex-wrap items-end gap-3"
    onsubmit={(e) => {
      e.preventDefault();
      void ask();
    }}
  >
    <TextField label="Their edge" width="7rem" value={edge} oninput={(t) => (edge = t)} />
    <button class="act">How long?</button>
  </form>
  {#if shown?.firm_s}<p role="status" class="mt-1 leading-snug" data-firm>
      Firm after {time(shown.firm_s)}, solid after {time(shown.solid_s ?? 0)}, in one layer at −18 °C. Usual
      practice: 30 to 45 min.
    </p>{/if}
  {#if shown?.problem}<p role="alert" class="mt-1 text-error">{shown.problem}</p>{/if}
</section>
