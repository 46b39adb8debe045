<!-- By eye: read the scale, bowl and all, after each thing goes in; the core says what went in. -->
<script lang="ts">
  import { untrack } from "svelte";
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { Catalogue, Evaluation } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";

  interface Props {
    bench: Bench;
    evaluation: Evaluation;
    catalogue: Catalogue;
    onclose: () => void;
  }
  let { bench, evaluation, catalogue, onclose }: Props = $props();
  let bowl = $state("");
  let rows = $state(
    untrack(() => [
      { what: "meat", shown: "" },
      ...evaluation.mix.lines.map((l) => ({ what: l.ingredient, shown: "" })),
      ...(evaluation.salt.salt_place === "mixed" ? [{ what: "salt", shown: "" }] : []),
    ]),
  );
  let sent = $state(false);
  const refused = $derived(bench.refusal?.target === "weigh-bowl" ? bench.refusal.detail : null);
  const names = $derived(
    new Map([
      ["meat", "The meat"],
      ["salt", "Salt"],
      ...catalogue.pantry.map((i): [string, string] => [i.key, i.name]),
    ]),
  );
  const addable = $derived(
    catalogue.pantry.filter((i) => !i.retired && i.group !== "salt" && !rows.some((r) => r.what === i.key)),
  );
  $effect(() => {
    if (sent && bench.waiting.length === 0) {
      if (refused) sent = false;
      else onclose();
    }
  });

  function compute(event: SubmitEvent): void {
    event.preventDefault();
    const readings = rows.filter((r) => r.shown.trim() !== "");
    bench.refusal = null;
    bench.edit({ kind: "weigh-bowl", bowl, readings });
    sent = true;
  }
</script>

<Sheet open title="Weigh the bowl" {onclose}>
  <form onsubmit={compute}>
    <p class="text-[0.9375rem] leading-snug quiet">
      Put in by eye, and read the scale after each, bowl and all. Leave empty what did not go in; put them in
      the order they went in.
    </p>
    <div class="mt-3">
      <TextField
        label="The empty bowl"
        width="8rem"
        value={bowl}
        oninput={(t) => (bowl = t)}
        placeholder="820 g"
      />
    </div>
    <ol class="mt-3 space-y-2">
      {#each rows as row, at (row.what)}
        <li class="flex items-end gap-2">
          <TextField
            label={`After ${(names.get(row.what) ?? row.what).toLowerCase()}`}
            width="11rem"
            value={row.shown}
            oninput={(t) => (row.shown = t)}
            placeholder="the scale shows"
          />
          {#if row.what !== "meat"}
            <button
              type="button"
              class="grid size-10 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200"
              aria-label={`Leave out ${names.get(row.what) ?? row.what}`}
              onclick={() => rows.splice(at, 1)}><Trash size={16} /></button
            >
          {/if}
        </li>
      {/each}
    </ol>
    <label class="mt-3 block text-[0.8125rem] quiet"
      >Something else went in
      <select
        class="mt-0.5 block h-[2.625rem] w-60 max-w-full cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 text-base font-semibold text-base-content"
        value=""
        onchange={(e) => {
          if (e.currentTarget.value) rows.push({ what: e.currentTarget.value, shown: "" });
          e.currentTarget.value = "";
        }}
      >
        <option value="">From the pantry …</option>
        {#each addable as thing (thing.key)}<option value={thing.key}>{thing.name}</option>{/each}
      </select></label
    >
    {#if refused}<p role="alert" class="mt-3 text-error">{refused}</p>{/if}
    <button class="mt-4 act-main">This is what is in it</button>
  </form>
</Sheet>
