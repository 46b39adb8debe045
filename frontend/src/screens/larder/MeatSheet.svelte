<!-- Add a meat of one's own, correct one, or retire it. Old formulas keep a retired meat. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type Meat } from "../../lib/api/client";
  import { itemKey } from "../../lib/itemKey";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import type { LarderRoom } from "./larder.svelte";

  let { room, meat, onclose }: { room: LarderRoom; meat: Meat | null; onclose: () => void } = $props();
  const blank: Meat = {
    key: "",
    name: "",
    species: "beef",
    kind: "cut",
    composition: {
      water_g_per_100g: 62,
      protein_g_per_100g: 18,
      fat_g_per_100g: 19,
      carbohydrate_g_per_100g: 0,
      ash_g_per_100g: 0.9,
      sodium_mg_per_100g: 66,
      sugars_g_per_100g: 0,
    },
    composition_note: "the cook's own figures",
    fat_low_frac: 0.14,
    fat_usual_frac: 0.19,
    fat_high_frac: 0.28,
    price_per_kg: "0",
    range_source: "the cook's own",
    remark: "",
    connective: "medium",
    cured: false,
    trim_loss_frac: 0,
    pack_mass_g: 0,
    retired: false,
  };
  const seen = untrack(() => meat);
  let draft = $state<Meat>({ ...(seen ?? blank) });
  const typed = $state(
    untrack(() => {
      const percent = (frac: number) => `${Math.round(frac * 1000) / 10} %`;
      const from = seen ?? blank;
      return {
        low: percent(from.fat_low_frac),
        usual: percent(from.fat_usual_frac),
        high: percent(from.fat_high_frac),
        trim: percent(from.trim_loss_frac ?? 0),
        water: String(from.composition.water_g_per_100g),
        protein: String(from.composition.protein_g_per_100g),
        fat: String(from.composition.fat_g_per_100g),
      };
    }),
  );
  let refused = $state<string | null>(null);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = null;
    try {
      const [low, usual, high, trim] = await Promise.all(
        [typed.low, typed.usual, typed.high, typed.trim].map(
          async (text) => (await api.read("frac", text, "metric")).value,
        ),
      );
      const [water, protein, fat] = await Promise.all(
        [typed.water, typed.protein, typed.fat].map(
          async (text) => (await api.read("number", text, "metric")).value,
        ),
      );
      const written: Meat = {
        ...draft,
        key: seen?.key ?? itemKey(draft.name),
        fat_low_frac: low ?? 0,
        fat_usual_frac: usual ?? 0,
        fat_high_frac: high ?? 0,
        trim_loss_frac: trim ?? 0,
        composition: {
          ...draft.composition,
          water_g_per_100g: water ?? 0,
          protein_g_per_100g: protein ?? 0,
          fat_g_per_100g: fat ?? 0,
        },
      };
      const done = await room.attempt(
        async () => {
          await api.saveMeat(written, seen);
        },
        seen ? "Corrected" : "Added",
      );
      if (done) onclose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
  const pick = (keys: readonly string[]) => keys.map((k) => ({ key: k, title: k }));
</script>

<Sheet open title={seen ? `Correct ${seen.name}` : "Add a meat"} {onclose}>
  <form class="flex flex-wrap items-start gap-x-4 gap-y-3.5" onsubmit={save}>
    <TextField label="Name" width="15rem" value={draft.name} oninput={(t) => (draft.name = t)} />
    <PickField
      label="Species"
      width="7.5rem"
      value={draft.species}
      options={pick(["beef", "pork", "veal", "lamb", "turkey", "chicken", "venison"])}
      onpick={(k) => (draft.species = k as Meat["species"])}
    />
    <PickField
      label="Sold as"
      width="7rem"
      value={draft.kind}
      options={pick(["cut", "trim", "ground", "fat", "offal"])}
      onpick={(k) => (draft.kind = k as Meat["kind"])}
    />
    <fieldset class="w-full">
      <legend class="text-[0.9375rem] font-semibold">Fat, nine deliveries in ten</legend>
      <div class="mt-1 flex flex-wrap gap-3">
        <TextField label="From" width="5.5rem" value={typed.low} oninput={(t) => (typed.low = t)} />
        <TextField label="Usually" width="5.5rem" value={typed.usual} oninput={(t) => (typed.usual = t)} />
        <TextField label="To" width="5.5rem" value={typed.high} oninput={(t) => (typed.high = t)} />
        <PickField
          label="Sinew"
          width="7rem"
          value={draft.connective ?? "medium"}
          options={pick(["low", "medium", "high", "fat"])}
          onpick={(k) => (draft.connective = k as Meat["connective"])}
        />
      </div>
    </fieldset>
    <fieldset class="w-full">
      <legend class="text-[0.9375rem] font-semibold">In 100 g, grams</legend>
      <div class="mt-1 flex flex-wrap gap-3">
        <TextField label="Water" width="5.5rem" value={typed.water} oninput={(t) => (typed.water = t)} />
        <TextField
          label="Protein"
          width="5.5rem"
          value={typed.protein}
          oninput={(t) => (typed.protein = t)}
        />
        <TextField label="Fat" width="5.5rem" value={typed.fat} oninput={(t) => (typed.fat = t)} />
      </div>
    </fieldset>
    <TextField
      label="Price of a kilo, bought"
      width="9rem"
      value={String(draft.price_per_kg)}
      oninput={(t) => (draft.price_per_kg = t.replace(",", "."))}
    />
    <TextField label="Trimmed away" width="7rem" value={typed.trim} oninput={(t) => (typed.trim = t)} />
    <TextField
      label="Where the range is from"
      width="14rem"
      value={draft.range_source}
      oninput={(t) => (draft.range_source = t)}
    />
    <TextField label="Remark" width="28rem" value={draft.remark ?? ""} oninput={(t) => (draft.remark = t)} />
    <div class="flex w-full flex-wrap gap-6">
      <label class="flex min-h-10 items-center gap-2"
        ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={draft.cured} /> cured:
        brings its own salt</label
      >
      {#if seen}<label class="flex min-h-10 items-center gap-2"
          ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={draft.retired} /> retired:
          not offered any more</label
        >{/if}
    </div>
    {#if refused ?? room.problem}<p role="alert" class="w-full text-error">{refused ?? room.problem}</p>{/if}
    <button class="act-main">{seen ? "Save" : "Add it"}</button>
  </form>
</Sheet>
