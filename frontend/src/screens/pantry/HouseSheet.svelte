<!-- A house formula: its lines in any measure, what comes out, how long it keeps; worked out as it is written. -->
<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import { untrack } from "svelte";
  import { api, ProblemError, type Ingredient, type PantryThing } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { HouseDraft } from "./house.svelte";
  import HouseResult from "./HouseResult.svelte";
  import { GROUPS, type PantryRoom } from "./pantry.svelte";

  interface Props {
    room: PantryRoom;
    thing: PantryThing | null;
    onclose: () => void;
  }
  let { room, thing, onclose }: Props = $props();
  const draft = new HouseDraft(untrack(() => thing));
  const choices = $derived(
    (room.things ?? [])
      .map((t) => t.ingredient)
      .filter((i) => i.key !== thing?.ingredient.key && !i.retired)
      .sort((a, b) => a.name.localeCompare(b.name)),
  );
  $effect(() => {
    draft.compute();
    return () => draft.close();
  });

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const ingredient = await draft.written(room.freeKey(draft.name));
      const done = await room.attempt(
        async () => {
          await api.saveIngredient(ingredient, thing?.revision ?? 0);
        },
        thing ? "Changed" : "Added",
      );
      if (done) onclose();
      else draft.notKept = room.problem;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      draft.notKept = error.problem.detail;
    }
  }
  function changed(run: () => void): void {
    run();
    draft.compute();
  }
</script>

<Sheet open title={thing ? `Change ${thing.ingredient.name}` : "A house formula"} {onclose}>
  <form class="flex flex-wrap items-start gap-x-4 gap-y-3.5" onsubmit={save}>
    <TextField label="Name" width="14rem" value={draft.name} oninput={(t) => (draft.name = t)} />
    <PickField
      label="In a mix it is"
      width="12rem"
      value={draft.group}
      options={Object.entries(GROUPS)
        .filter(([key]) => key !== "salt")
        .map(([key, title]) => ({ key, title }))}
      onpick={(key) => (draft.group = key as Ingredient["group"])}
    />
    <fieldset class="w-full">
      <legend class="text-[0.9375rem] font-semibold">What goes in</legend>
      {#each draft.lines as line, at (line.ingredient)}
        <div class="mt-1.5 flex items-end gap-2">
          <TextField
            label={choices.find((i) => i.key === line.ingredient)?.name ?? line.ingredient}
            width="11rem"
            value={line.text}
            oninput={(t) => changed(() => (line.text = t))}
            placeholder="80 g, 2 tbsp, 3 cloves"
          />
          <button
            type="button"
            class="grid size-10 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200"
            aria-label={`Take out ${choices.find((i) => i.key === line.ingredient)?.name ?? line.ingredient}`}
            onclick={() => changed(() => draft.lines.splice(at, 1))}><Trash size={16} /></button
          >
        </div>
      {/each}
      <div class="mt-2">
        <PickField
          label="Add from the pantry"
          width="15rem"
          value=""
          options={[
            { key: "", title: "Choose …" },
            ...choices
              .filter((i) => !draft.lines.some((l) => l.ingredient === i.key))
              .map((i) => ({ key: i.key, title: i.name })),
          ]}
          onpick={(key) => key && draft.lines.push({ ingredient: key, text: "" })}
        />
      </div>
    </fieldset>
    <TextField
      label="Comes out"
      width="8rem"
      value={draft.yield}
      oninput={(t) => changed(() => (draft.yield = t))}
      hint="empty: all of it"
    />
    <TextField
      label="Keeps, days"
      width="7rem"
      value={draft.keeps}
      oninput={(t) => changed(() => (draft.keeps = t))}
    />
    <TextField label="Grams in a cup" width="7rem" value={draft.cup} oninput={(t) => (draft.cup = t)} />
    <TextField
      label="How it is made"
      width="28rem"
      value={draft.method}
      oninput={(t) => (draft.method = t)}
    />
    <label class="flex min-h-10 w-full items-center gap-2"
      ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={draft.acid} /> acid: below
      pH 4.6 by a test of your own</label
    >
    {#if thing}<label class="flex min-h-10 w-full items-center gap-2"
        ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={draft.retired} /> retired:
        not offered any more</label
      >{/if}
    <HouseResult {draft} />
    {#if draft.refused}<p role="alert" class="w-full text-error">{draft.refused}</p>{/if}
    <button class="act-main" disabled={!draft.name.trim()}>{thing ? "Save" : "Write it down"}</button>
  </form>
</Sheet>
