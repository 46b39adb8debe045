<!-- Step 9: the remark, the kept versions, the cooks, and the file. -->
<script lang="ts">
  import Download from "@lucide/svelte/icons/download";
  import { api, type CookLine, type Version } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import StepHead from "../../lib/ui/StepHead.svelte";
  import { refusalOf } from "../../lib/refusal";
  import NextChange from "../log/NextChange.svelte";
  import type { StepProps } from "../step";

  let { bench, formula }: StepProps = $props();
  let versions = $state.raw<Version[] | null>(null);
  let cooks = $state.raw<CookLine[] | null>(null);
  let name = $state("");
  let remark = $state<string | null>(null);
  let problem = $state<string | null>(null);
  // The last ones matter; the others are a tap away.
  const FIRST = 5;
  let all = $state(false);
  const shown = $derived(all ? (cooks ?? []) : (cooks ?? []).slice(0, FIRST));
  const said = (cook: CookLine) =>
    cook.outcome?.next_time ? `Next time: ${cook.outcome.next_time}` : (cook.outcome?.note ?? "");

  $effect(() => {
    void attempt(async () => {
      [versions, cooks] = await Promise.all([api.versions(bench.id), api.formulaCooks(bench.id)]);
    });
  });

  async function attempt(run: () => Promise<void>): Promise<void> {
    problem = null;
    problem = (await refusalOf(run)) ?? problem;
  }
  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    await attempt(async () => {
      if (!(await bench.settle())) {
        problem = "The formula is not saved yet; wait a moment and press again.";
        return;
      }
      await api.keepVersion(bench.id, name);
      name = "";
      versions = await api.versions(bench.id);
    });
  }
  async function download(path: string): Promise<void> {
    if (!(await bench.settle())) {
      problem = "The formula is not saved yet; wait a moment and press again.";
      return;
    }
    const link = document.createElement("a");
    link.href = path;
    link.download = "";
    link.click();
  }
</script>

<StepHead
  title="Notes"
  line="What you want to remember, the versions you keep, and what happened when it was cooked."
/>
{#if problem}<p role="alert" class="mb-3 text-sm text-error">{problem}</p>{/if}

<div class="grid gap-x-10 gap-y-6 md:grid-cols-2">
  <section>
    <label class="text-base font-semibold" for="remark">Remark</label>
    <textarea
      id="remark"
      class="mt-1.5 block h-28 w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper p-2.5"
      maxlength="2000"
      value={remark ?? formula.remark}
      oninput={(e) => (remark = e.currentTarget.value)}
      onblur={() => {
        if (remark != null && remark !== formula.remark) bench.edit({ kind: "write-remark", text: remark });
        remark = null;
      }}></textarea>
    <div class="mt-4 flex flex-wrap gap-2">
      <button class="act" onclick={() => download(api.exportPath(bench.id))}
        ><Download size={17} /> Export to a file</button
      >
      <button class="act" onclick={() => download(api.recipePath(bench.id))}
        ><Download size={17} /> Export as a recipe</button
      >
    </div>
    <p class="mt-2 text-[0.8125rem] quiet">
      The file stands alone: it carries the meats and the kitchen it was computed with. Import one from the
      shelf. The recipe is a schema.org Recipe: what is weighed, how it is mixed, shaped and cooked.
    </p>
  </section>
  <section>
    <h2 class="text-base">Versions kept</h2>
    <form class="mt-1.5 flex gap-2" onsubmit={keep}>
      <input
        class="h-10 min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5"
        aria-label="Name of the version"
        placeholder="leaner, for Saturday"
        maxlength="80"
        bind:value={name}
        required
      />
      <button class="act">Keep this one</button>
    </form>
    {#if versions && versions.length > 0}
      <p class="mt-2">
        <a class="act text-sm" href={`/formula/${bench.id}/compare`}>Compare, and taste blind</a>
      </p>
      <ol class="mt-2">
        {#each versions as version (version.number)}
          <li class="flex items-baseline gap-3 border-b border-base-300 py-2">
            <span class="w-6 text-right numeral quiet">{version.number}</span>
            <span class="min-w-0 flex-1"
              ><span class="font-semibold">{version.name}</span>
              <span class="text-[0.8125rem] quiet"
                >{moment(version.created_at)}{version.kept_by ? `, ${version.kept_by}` : ""}</span
              ></span
            >
            <button
              class="act min-h-8 py-0.5 text-sm"
              onclick={() => attempt(() => bench.put(version.formula))}>Lay it out</button
            >
          </li>
        {/each}
      </ol>
    {:else}
      <p class="mt-2 text-[0.875rem] quiet">
        None yet. A kept version never changes; laying it out again is one step you can undo.
      </p>
    {/if}
    <h2 class="mt-6 text-base">Cooks</h2>
    {#if cooks && cooks.length > 0}
      <ol class="mt-1">
        {#each shown as cook (cook.id)}
          <li class="border-b border-base-300">
            <a
              href={cook.finished_at ? `/log/${cook.id}` : `/stove/${cook.id}`}
              class="flex flex-wrap items-baseline justify-between gap-x-3 py-2 hover:bg-paper"
            >
              <span class="font-semibold">{moment(cook.started_at)}</span>
              <span class="numeral"
                ><Qty kind="count" value={cook.pieces} /> × <Qty
                  kind="mass_g"
                  value={cook.piece_mass_g}
                /></span
              >
              <span class="text-[0.8125rem] quiet">{cook.finished_at ? "finished" : "at the stove"}</span>
              {#if said(cook)}<span class="w-full text-[0.875rem] leading-snug">{said(cook)}</span>{/if}
            </a>
          </li>
        {/each}
      </ol>
      {#if cooks.length > shown.length}<button class="mt-2 act text-sm" onclick={() => (all = true)}
          >Show all {cooks.length}</button
        >{/if}
    {:else if cooks}
      <p class="mt-1 text-[0.875rem] quiet">
        Not cooked yet. What comes off, and how it was, stands here and says what to change.
      </p>
      <a class="mt-2 act text-sm" href={`/formula/${bench.id}/cook`}>To the cook</a>
    {/if}
  </section>
</div>
{#if cooks?.some((cook) => cook.finished_at)}
  <div class="mt-8 max-w-[44rem] border-t border-base-300 pt-4"><NextChange formula_id={bench.id} /></div>
{/if}
