<!-- What goes on inside the piece: a computed curve with its doubt, beside habit's minutes. -->
<script lang="ts">
  import { api, ProblemError, type HeatCurve, type NotModelled } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import type { StepProps } from "../step";
  import CurvePicture from "./CurvePicture.svelte";

  let { formula, evaluation }: StepProps = $props();
  let answer = $state.raw<HeatCurve | NotModelled | null>(null);
  let problem = $state<string | null>(null);
  let busy = $state(false);

  // Only the newest formula counts: an older question still under way is given up.
  $effect(() => {
    const asked = formula;
    const stop = new AbortController();
    busy = true;
    const wait = setTimeout(() => {
      api.heatCurve(asked, stop.signal).then(
        (found) => {
          answer = found;
          problem = null;
          busy = false;
        },
        (error: unknown) => {
          if (stop.signal.aborted) return;
          if (!(error instanceof ProblemError)) throw error;
          problem = error.problem.detail;
          busy = false;
        },
      );
    }, 120);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  });
  const heat = $derived(evaluation.heat);
  const curve = $derived(answer?.kind === "curve" ? answer : null);
  const spell = (low: number, high: number) =>
    high >= 3600 ? `${Math.round(low / 60)}–${Math.round(high / 60)} min` : `${time(low)}–${time(high)}`;
</script>

<div class="mt-4" aria-busy={busy}>
  {#if problem}
    <p role="alert" class="text-error">{problem}</p>
  {:else if !answer}
    <p class="quiet">Reckoning the heat through the piece …</p>
  {:else if !curve}
    <p>
      {#if answer.kind === "none"}<Say text={answer.why} />{/if}
    </p>
  {:else}
    <div class={["flex flex-wrap gap-x-8 gap-y-3 transition-opacity", busy && "opacity-50"]}>
      {#if curve.flip_s && curve.flip_s.high - curve.flip_s.low > 2}
        <div data-flip>
          <Fact label="Flip, computed">{spell(curve.flip_s.low, curve.flip_s.high)}</Fact>
          <span class="text-[0.8125rem] quiet">habit {spell(heat.flip_s.low, heat.flip_s.high)}</span>
        </div>
      {/if}
      <div data-there>
        <Fact label="Core there, computed"
          >{#if curve.reached}{spell(curve.target_s.low, curve.target_s.high)}{:else}not by {time(
              curve.target_s.usual,
            )}{/if}</Fact
        >
        <span class="text-[0.8125rem] quiet">habit {spell(heat.on_heat_s.low, heat.on_heat_s.high)}</span>
      </div>
      {#if curve.reached}
        <div>
          <Fact label="Pull, to coast there">{time(curve.pull_s)}</Fact>
          <span class="text-[0.8125rem] quiet">core <Qty kind="temp_c" value={curve.pull_core_c} /></span>
        </div>
        <div>
          <Fact label="Highest core"><Qty kind="temp_c" value={curve.peak_c} /></Fact>
          <span class="text-[0.8125rem] quiet">wanted <Qty kind="temp_c" value={heat.target_c} /></span>
        </div>
      {/if}
      {#if curve.plate_low_c !== null}
        <Fact label="Surface falls to"><Qty kind="temp_c" value={curve.plate_low_c} /></Fact>
      {/if}
      <Fact label="Water lost by then"><Qty kind="frac" value={curve.water_lost_frac} /></Fact>
    </div>
    <CurvePicture {curve} {heat} />
    <p class="mt-2 text-[0.875rem] leading-snug">
      <Say text={curve.doubt} />
      {#if !heat.probe}Nobody can probe a piece this thin: the cue decides.{/if}
    </p>
    <p class="mt-1 text-[0.8125rem] leading-snug quiet">
      Computed from published properties and coefficients, not fitted to any cooking: trust it to a fifth or a
      quarter. The timers keep to habit’s minutes. Colour and a cut mislead in mince. Local codes and licensed
      practice decide; Vianda shows the floor and never calls a dish safe.
    </p>
  {/if}
</div>
