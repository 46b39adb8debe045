<!-- The way it is cooked: one that is ready, or stages put together by hand; each change is computed at once. -->
<script lang="ts">
  import type { HeatStage } from "../../lib/api/client";
  import { time } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import type { StepProps } from "../step";
  import type { HeatBench } from "./heat.svelte";
  import StageRow from "./StageRow.svelte";
  import WayAxis from "./WayAxis.svelte";

  let { bench, formula, evaluation, kitchen, catalogue, inside }: StepProps & { inside: HeatBench } =
    $props();
  const ways = $derived(inside.ways);
  const chosen = $derived(ways?.methods.find((m) => m.key === ways.method));
  const surface = $derived(kitchen.surfaces.find((s) => s.key === formula.heat.surface));
  const iron = $derived(surface?.kind === "plate" || surface?.kind === "pan");
  const refused = $derived(
    ["set-stages", "method", "fat", "resting", "cheese", "glaze"].includes(bench.refusal?.target ?? "")
      ? bench.refusal?.detail
      : null,
  );

  // What may lie on top: the cheeses and the sauces of this pantry, and the one that is on now.
  const onTop = (group: string, now: string) =>
    catalogue.pantry
      .filter((i) => i.key === now || (i.group === group && !i.retired))
      .map((i) => ({ key: i.key, title: i.name }));
  const cheese = $derived(formula.heat.cheese ?? "processed-cheese");
  const glaze = $derived(formula.heat.glaze ?? "ketchup");

  function send(stages: readonly HeatStage[]): void {
    bench.edit({ kind: "set-stages", stages: [...stages] });
  }
  function change(at: number, part: Partial<HeatStage>): void {
    send((ways?.stages ?? []).map((s, n) => (n === at ? { ...s, ...part } : s)));
  }
  function move(at: number, by: number): void {
    const next = [...(ways?.stages ?? [])];
    const [one] = next.splice(at, 1);
    if (one) next.splice(at + by, 0, one);
    send(next);
  }
  function add(): void {
    // Before the last one, which mostly waits for the core.
    if (ways) send([...ways.stages.slice(0, -1), ways.fresh, ...ways.stages.slice(-1)]);
  }
  function chill(): void {
    if (ways?.chilling) send([ways.chilling, ...ways.stages]);
  }
  const offClock = (stage: HeatStage) => ways?.choices.find((c) => c.kind === stage.kind)?.before ?? false;
  const before = $derived(ways?.stages.filter(offClock).length ?? 0);
  const ran = (at: number) => {
    if (at < before) return "before the heat";
    const one = inside.curve?.stages[at - before];
    return one ? `${time(one.from_s)}–${time(one.to_s)}` : "";
  };
</script>

<div class="mt-4" aria-busy={inside.busy}>
  {#if !ways}
    <p class="quiet">Looking at what this kitchen has …</p>
  {:else}
    <div class="flex flex-wrap items-start gap-x-5 gap-y-3">
      <PickField
        label="Way of cooking"
        width="18rem"
        value={ways.method}
        options={[
          { key: "", title: `${evaluation.style.title}: its own way` },
          ...ways.methods.map((m) => ({ key: m.key, title: m.title })),
        ]}
        onpick={(key) => bench.edit({ kind: "choose", field: "method", key })}
      />
      {#if iron}
        <PickField
          label="Fat in the pan"
          width="11rem"
          value={formula.heat.fat ?? ""}
          options={[
            { key: "", title: "none, dry" },
            ...ways.fats.map(([key, f]) => ({ key, title: f.title.toLowerCase() })),
          ]}
          onpick={(key) => bench.edit({ kind: "choose", field: "fat", key })}
        />
      {/if}
      {#if ways.stages.some((s) => s.cheese)}
        <PickField
          label="Cheese laid on"
          width="13rem"
          value={cheese}
          options={onTop("cheese", cheese)}
          onpick={(key) => bench.edit({ kind: "choose", field: "cheese", key })}
        />
      {/if}
      {#if ways.stages.some((s) => s.glaze)}
        <PickField
          label="Glaze"
          width="13rem"
          value={glaze}
          options={onTop("sauce", glaze)}
          onpick={(key) => bench.edit({ kind: "choose", field: "glaze", key })}
        />
      {/if}
      <Segments
        label="It rests"
        options={[
          { key: "open", title: "open" },
          { key: "foil", title: "under foil" },
        ]}
        value={formula.heat.resting ?? "open"}
        onpick={(key) => bench.edit({ kind: "choose", field: "resting", key })}
      />
    </div>
    <p class="mt-2 max-w-[44rem] text-[0.875rem] leading-snug quiet">
      {#if ways.by_hand}Put together by hand, from {chosen
          ? `“${chosen.title.toLowerCase()}”`
          : "the style’s own way"}.
      {:else if chosen}{chosen.why}
      {:else}As the style is usually cooked. Change any stage and it becomes yours.{/if}
    </p>
    {#if refused}<p role="alert" class="mt-2 max-w-[44rem] text-error">{refused}</p>{/if}
    {#if inside.curve && inside.curve.stages.length > 0}
      <WayAxis
        stages={ways.stages.slice(before)}
        ran={inside.curve.stages}
        onend={(at, time_s) => change(before + at, { until: "time", time_s: Math.round(time_s) })}
      />
    {/if}
    <ol class="mt-3 max-w-[52rem] border-t border-base-300" aria-label="Stages">
      {#each ways.stages as stage, at (at)}
        <StageRow
          {stage}
          number={at + 1}
          first={at === 0 || at === before}
          last={at === ways.stages.length - 1 || at === before - 1}
          lone={!offClock(stage) && ways.stages.length - before === 1}
          choices={ways.choices}
          ran={ran(at)}
          onchange={(part) => change(at, part)}
          onmove={(by) => move(at, by)}
          onremove={() => send(ways.stages.filter((_, n) => n !== at))}
        />
      {/each}
    </ol>
    <div class="mt-3 flex flex-wrap gap-3">
      {#if ways.stages.length < ways.most}<button class="act" onclick={add}>Add a stage</button>{/if}
      {#if ways.chilling && before === 0 && ways.stages.length < ways.most}<button class="act" onclick={chill}
          >Chill it first</button
        >{/if}
      {#if ways.by_hand}<button class="act" onclick={() => send([])}
          >Back to {chosen ? "the way chosen" : "the style’s own way"}</button
        >{/if}
    </div>
  {/if}
</div>
