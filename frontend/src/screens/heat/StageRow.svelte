<!-- One stage: where it lies, what ends it, and what is done with it. -->
<script lang="ts">
  import ArrowDown from "@lucide/svelte/icons/arrow-down";
  import ArrowUp from "@lucide/svelte/icons/arrow-up";
  import X from "@lucide/svelte/icons/x";
  import { api, ProblemError, type HeatStage, type StageChoice } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "./QuickField.svelte";
  import { WHERE } from "./stages";

  interface Props {
    stage: HeatStage;
    number: number;
    first: boolean;
    last: boolean;
    /** Nothing else would be on the heat. */
    lone: boolean;
    choices: readonly StageChoice[];
    ran: string;
    onchange: (part: Partial<HeatStage>) => void;
    onmove: (by: number) => void;
    onremove: () => void;
  }
  let { stage, number, first, last, lone, choices, ran, onchange, onmove, onremove }: Props = $props();
  let problem = $state<string | null>(null);

  const UNTIL: Record<HeatStage["until"], string> = {
    time: "for so long",
    "two-fifths": "until two fifths are cooked",
    core: "until the core is there",
  };
  const DEEDS = [
    { key: "flip", title: "turn over first" },
    { key: "press", title: "press" },
    { key: "cover", title: "cover, with steam" },
    { key: "cheese", title: "cheese on" },
    { key: "glaze", title: "a coat of glaze" },
  ] as const;
  const choice = $derived(choices.find((c) => c.kind === stage.kind));
  // What is cold comes before the clock, and what is hot stays on it.
  const cold = $derived(choice?.before ?? false);
  const places = $derived(
    choices.filter((c) => c.before === cold).map((c) => ({ key: c.kind, title: WHERE[c.kind] })),
  );
  const ends = $derived((choice?.ends ?? []).map((key) => ({ key, title: UNTIL[key] })));
  const deeds = $derived(DEEDS.filter((d) => choice?.actions.includes(d.key)));

  /** Another place takes along only what can be done there. */
  function place(kind: HeatStage["kind"]): void {
    const may = choices.find((c) => c.kind === kind)?.actions ?? [];
    onchange({
      kind,
      ...Object.fromEntries(DEEDS.map(({ key }) => [key, stage[key] && may.includes(key)])),
      turn_every_s: may.includes("turn_every_s") ? stage.turn_every_s : 0,
    });
  }

  async function read(kind: "time_s" | "temp_c", text: string, use: (value: number) => void): Promise<void> {
    try {
      use((await api.read(kind, text, units.system)).value);
      problem = null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problem = error.problem.detail;
    }
  }
</script>

<li class="border-b border-base-300 py-2.5" aria-label={`Stage ${number}`}>
  <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
    <span class="w-5 pb-2.5 text-right numeral quiet" aria-hidden="true">{number}</span>
    <PickField
      label="Where"
      width="10.5rem"
      value={stage.kind}
      options={places}
      onpick={(key) => place(key as HeatStage["kind"])}
    />
    <PickField
      label="How long"
      width="14rem"
      value={stage.until}
      options={ends}
      onpick={(key) =>
        onchange({ until: key as HeatStage["until"], time_s: key === "time" ? stage.time_s || 60 : 0 })}
    />
    {#if stage.until === "time"}
      <QuickField
        label="Time"
        width="5.5rem"
        value={time(stage.time_s)}
        oncommit={(text) => read("time_s", text, (v) => onchange({ time_s: v }))}
      />
    {:else}
      <!-- What stands right of it keeps its place under that of the other stages. -->
      <span class="hidden w-[5.5rem] sm:block" aria-hidden="true"></span>
    {/if}
    <QuickField
      label={cold ? "How cold" : stage.kind === "surface" ? "Its own heat" : "How hot"}
      width="6rem"
      placeholder={stage.kind === "surface" ? "as above" : "usual"}
      value={stage.temp_c == null ? "" : amount({ kind: "temp_c", value: stage.temp_c }, units)}
      oncommit={(text) =>
        text ? read("temp_c", text, (v) => onchange({ temp_c: v })) : onchange({ temp_c: null })}
    />
    {#if choice?.actions.includes("turn_every_s")}
      <QuickField
        label="Turned every"
        width="5.5rem"
        placeholder="never"
        value={stage.turn_every_s ? time(stage.turn_every_s) : ""}
        oncommit={(text) =>
          text ? read("time_s", text, (v) => onchange({ turn_every_s: v })) : onchange({ turn_every_s: 0 })}
      />
    {/if}
  </div>
  <div class="mt-1 flex flex-wrap items-center gap-x-5 gap-y-1 pl-8">
    {#each deeds as deed (deed.key)}
      <label class="flex min-h-9 cursor-pointer items-center gap-2 text-[0.9375rem]">
        <input
          type="checkbox"
          class="size-5 accent-primary"
          checked={stage[deed.key]}
          onchange={(e) => onchange({ [deed.key]: e.currentTarget.checked })}
        />
        {deed.title}
      </label>
    {/each}
    <span class="ml-auto flex items-center">
      <span class="pr-2 text-[0.875rem] numeral whitespace-nowrap quiet">{ran}</span>
      <button
        class="grid size-10 cursor-pointer place-items-center rounded hover:bg-base-200 disabled:opacity-30"
        aria-label={`Stage ${number} earlier`}
        disabled={first}
        onclick={() => onmove(-1)}><ArrowUp size={16} /></button
      >
      <button
        class="grid size-10 cursor-pointer place-items-center rounded hover:bg-base-200 disabled:opacity-30"
        aria-label={`Stage ${number} later`}
        disabled={last}
        onclick={() => onmove(1)}><ArrowDown size={16} /></button
      >
      <button
        class="grid size-10 cursor-pointer place-items-center rounded hover:bg-base-200 disabled:opacity-30"
        aria-label={`Leave stage ${number} out`}
        disabled={lone}
        onclick={onremove}><X size={16} /></button
      >
    </span>
  </div>
  {#if problem}<p role="alert" class="pl-8 text-[0.8125rem] text-error">{problem}</p>{/if}
</li>
