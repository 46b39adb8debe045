<!-- Step 8: what will happen at the stove, the wave to scale, and the button that begins it. -->
<script lang="ts">
  import { api, ProblemError } from "../../lib/api/client";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import SurfacePicture from "../../lib/ui/SurfacePicture.svelte";
  import { time } from "../../lib/format";
  import { navigate } from "../../router";
  import type { SheetProps } from "../step";

  let { bench, evaluation, kitchen, formula, onworking, sheets }: SheetProps = $props();
  const stove = $derived(sheets.stove);
  const steps = $derived([...stove.before, ...stove.each_wave, ...stove.after]);
  let problem = $state<string | null>(null);
  let busy = $state(false);

  async function begin(): Promise<void> {
    busy = true;
    problem = null;
    try {
      if (!(await bench.settle())) {
        problem = "The formula is not saved yet; it is cooked as saved. Wait a moment and press again.";
        return;
      }
      const cook = await api.beginCook(bench.id);
      await navigate(`/stove/${cook.id}` as "/");
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    } finally {
      busy = false;
    }
  }
</script>

<StepHead title="Cook" line="The surface to scale, and what the stove will ask of you." />

<div class="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
  <div>
    <SurfacePicture
      {stove}
      shape={evaluation.shape}
      name={kitchen.surfaces.find((s) => s.key === formula.heat.surface)?.name ?? ""}
    />
    <div class="mt-4 flex flex-wrap gap-x-8 gap-y-3">
      {#if stove.load_mass_g}
        <Fact label="Browning loads" onclick={() => onworking("waves")}
          ><Qty kind="count" value={stove.waves} /></Fact
        >
        <Fact label="Meat at once" onclick={() => onworking("waves")}
          ><Qty kind="mass_g" value={stove.load_mass_g} /></Fact
        >
      {:else}
        <Fact label="Waves" onclick={() => onworking("waves")}><Qty kind="count" value={stove.waves} /></Fact>
        <Fact label="At once" onclick={() => onworking("waves")}
          ><Qty kind="count" value={stove.at_once} /></Fact
        >
        {#if stove.first_wave < stove.at_once}<Fact
            label="First wave, with what lies beside it"
            onclick={() => onworking("waves")}><Qty kind="count" value={stove.first_wave} /></Fact
          >{/if}
        {#if stove.waves > 1}<Fact label="Last wave"><Qty kind="count" value={stove.last_wave} /></Fact>{/if}
      {/if}
      <Fact label={stove.waves > 1 ? "On the heat, all of it" : "On the heat"}
        ><Qty kind="time_s" value={stove.on_heat_s} /></Fact
      >
    </div>
    <button class="mt-5 act-main min-h-14 w-full text-lg" onclick={begin} disabled={busy}
      >Cook {formula.name}</button
    >
    {#if problem}<p role="alert" class="mt-2 text-sm text-error">{problem}</p>{/if}
  </div>
  <ol class="self-start">
    {#each steps as step, at (at)}
      <li class="grid grid-cols-[3.25rem_1fr] gap-x-3 border-b border-base-300 py-2">
        <span class="pt-px numeral">{step.timer_s > 0 ? time(step.timer_s) : ""}</span>
        <span>
          <span class="block font-semibold">{step.title.replace("{n}", String(stove.at_once))}</span>
          <span class="block text-[0.8125rem] leading-snug quiet"><Say text={step.cue} /></span>
        </span>
      </li>
    {/each}
  </ol>
</div>
