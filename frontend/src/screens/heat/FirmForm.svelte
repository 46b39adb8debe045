<!-- Cubes in the freezer before grinding: until they are firm but not solid. -->
<script lang="ts">
  import { api, type Formula } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  let { formula }: { formula: Formula } = $props();
  const uid = $props.id();
  let edge = $state(units.system === "us" ? "1.1 in" : "28 mm");
  const told = new Resource<{ of: Formula; text: string }, { firm_s: number; solid_s: number }>(
    async ({ of, text }, signal) =>
      api.firming(of, (await api.read("length_mm", text, units.system)).value, signal),
    { pauseMs: 300 },
  );
  $effect(() => told.ask({ of: formula, text: edge }));
</script>

<section aria-label="Cubes in the freezer" aria-busy={told.busy}>
  <h2 class="text-base">Cubes in the freezer, before grinding</h2>
  <p class="leading-normal">
    Cubes of <input
      id={uid}
      aria-label="Their edge"
      class={[
        "mx-0.5 h-11 w-[5.5rem] rounded-t-[0.25rem] border-0 border-b-2 bg-base-200 px-1.5 text-center numeral",
        told.problem ? "border-error" : "border-primary",
      ]}
      autocomplete="off"
      spellcheck="false"
      aria-invalid={told.problem ? true : undefined}
      value={edge}
      oninput={(e) => (edge = e.currentTarget.value)}
    />
    {#if told.value && !told.problem}<span role="status" data-firm
        >are firm after <b class="numeral"><Qty kind="time_s" value={told.value.firm_s} /></b> and solid after
        <b class="numeral"><Qty kind="time_s" value={told.value.solid_s} /></b>.</span
      >{/if}
  </p>
  {#if told.problem}<p role="alert" class="text-[0.875rem] text-error">{told.problem.detail}</p>
  {:else}<p class="text-[0.8125rem] quiet">In one layer at −18 °C. Usual practice: 30 to 45 min.</p>{/if}
</section>
