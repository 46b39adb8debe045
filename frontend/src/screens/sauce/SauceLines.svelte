<!-- The lines of a sauce: typed, said, poured over a scale, held, scaled, or replaced. -->
<script lang="ts">
  import Lock from "@lucide/svelte/icons/lock";
  import LockOpen from "@lucide/svelte/icons/lock-open";
  import Replace from "@lucide/svelte/icons/replace";
  import { api, ProblemError, type Catalogue } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import type { TasteBench } from "./taste.svelte";

  interface Props {
    tasting: TasteBench;
    /** What can go in. */
    things: Catalogue["pantry"];
    nameOf: (key: string) => string;
  }
  let { tasting, things, nameOf }: Props = $props();
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  let fresh = $state("");
  let said = $state("");
  /** What the sauce is scaled by: an ingredient, or "" for all of it. */
  let scaling = $state("");
  let pouring = $state("mayonnaise");
  let before = $state("");
  let after = $state("");
  let failed = $state<string | null>(null);

  async function told(run: () => Promise<void>): Promise<void> {
    failed = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      failed = error.problem.detail;
    }
  }
  async function setLine(ingredient: string, text: string): Promise<void> {
    await told(async () => {
      const { mass_g } = await api.readAmount(ingredient, text, units.system);
      tasting.setLine(ingredient, mass_g, `${nameOf(ingredient)} set to ${mass(mass_g)}`);
    });
  }

  async function say(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const sent = said;
    said = "";
    // What was not read comes back, to be mended.
    if (sent.trim() && !(await tasting.compose(sent, units.system))) said = sent;
  }

  async function scaleTo(text: string): Promise<void> {
    await told(async () => {
      const { value } = await api.read("mass_g", text, units.system);
      const of = scaling ? `of ${nameOf(scaling).toLowerCase()}` : "in all";
      await tasting.scale(
        scaling
          ? { whole_g: 0, ingredient: scaling, mass_g: value }
          : { whole_g: value, ingredient: "", mass_g: 0 },
        `Scaled to ${mass(value)} ${of}`,
      );
    });
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (fresh) tasting.addLine(fresh, 10, `${nameOf(fresh)} +${mass(10)}`);
    fresh = "";
  }

  async function pour(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await told(async () => {
      const [was, is] = await Promise.all([
        api.read("mass_g", before, units.system),
        api.read("mass_g", after, units.system),
      ]);
      await tasting.poured(
        pouring,
        was.value,
        is.value,
        (g) => `Poured ${mass(g)} ${nameOf(pouring).toLowerCase()}`,
      );
      if (!tasting.problem) [before, after] = [after, ""];
    });
  }
</script>

<div class="flex items-baseline justify-between">
  <h2 class="text-base">What is in it</h2>
  <span class="numeral">{mass(tasting.taste?.whole_g ?? 0)}</span>
</div>
{#if failed}<p role="alert" class="text-[0.875rem] text-error">{failed}</p>{/if}
<ul class="mt-1">
  {#each tasting.lines as line (line.ingredient)}
    {@const held = tasting.locked.includes(line.ingredient)}
    <li class="flex items-center gap-2 border-t border-base-300 py-1.5">
      <span class="min-w-0 flex-1 truncate text-[0.9375rem] font-semibold">{nameOf(line.ingredient)}</span>
      <QuickField
        label={`Grams of ${nameOf(line.ingredient).toLowerCase()}`}
        value={mass(line.mass_g)}
        width="5.5rem"
        bare
        oncommit={(text) => setLine(line.ingredient, text)}
      />
      <button
        class="act size-[2.625rem] p-0"
        aria-pressed={held}
        onclick={() => tasting.hold(line.ingredient)}
        >{#if held}<Lock size={18} aria-hidden="true" />{:else}<LockOpen
            size={18}
            aria-hidden="true"
          />{/if}<span class="sr-only">Hold {nameOf(line.ingredient)}</span></button
      >
      <button
        class="act size-[2.625rem] p-0"
        title="It cannot be had"
        onclick={() => tasting.lacks(line.ingredient)}
        ><Replace size={18} aria-hidden="true" /><span class="sr-only"
          >{nameOf(line.ingredient)} cannot be had</span
        ></button
      >
    </li>
  {/each}
</ul>
<form class="mt-2 flex gap-2" onsubmit={say} aria-label="Say what goes in">
  <input
    class="h-[2.625rem] min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 placeholder:text-quiet"
    aria-label="What goes in"
    placeholder="3 tbsp yoghurt, 2 tsp mustard"
    autocomplete="off"
    spellcheck="false"
    maxlength="600"
    bind:value={said}
  />
  <button class="act" disabled={!said.trim()}>Stir it in</button>
</form>
<form class="mt-2 flex gap-2" onsubmit={add}>
  <select
    class="h-[2.625rem] min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2"
    aria-label="Something more"
    bind:value={fresh}
  >
    <option value="">Something more …</option>
    {#each things as thing (thing.key)}
      <option value={thing.key}>{thing.name}</option>
    {/each}
  </select>
  <button class="act" disabled={!fresh}>Add 10 g</button>
</form>
<div class="mt-3 flex flex-wrap items-end gap-2 border-t border-base-300 pt-2">
  <label class="min-w-0 flex-1 basis-32 text-[0.8125rem] quiet"
    >Scale it by<select
      class="mt-0.5 block h-[2.625rem] w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 text-base text-base-content"
      bind:value={scaling}
    >
      <option value="">All of it</option>
      {#each tasting.lines as line (line.ingredient)}<option value={line.ingredient}
          >{nameOf(line.ingredient)}</option
        >{/each}
    </select></label
  >
  <QuickField label="To" value="" placeholder="900 g" oncommit={scaleTo} />
</div>
<form class="mt-3 border-t border-base-300 pt-2" onsubmit={pour} aria-label="Poured at the bowl">
  <p class="text-[0.8125rem] quiet">Poured without measuring: the scale before and after.</p>
  <div class="mt-1 flex flex-wrap items-end gap-2">
    <select
      class="h-[2.625rem] min-w-0 flex-1 basis-32 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2"
      aria-label="What was poured"
      bind:value={pouring}
    >
      {#each things as thing (thing.key)}
        <option value={thing.key}>{thing.name}</option>
      {/each}
    </select>
    <input
      class="h-[2.625rem] w-20 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 numeral"
      aria-label="Scale before"
      placeholder="before"
      autocomplete="off"
      bind:value={before}
    />
    <input
      class="h-[2.625rem] w-20 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 numeral"
      aria-label="Scale after"
      placeholder="after"
      autocomplete="off"
      bind:value={after}
    />
    <button class="act" disabled={!before || !after}>Add it</button>
  </div>
</form>
