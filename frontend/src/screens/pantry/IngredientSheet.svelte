<!-- Add an ingredient, correct one by its label, or retire it. Old formulas keep what is retired. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type Ingredient, type PantryThing } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import AllergenBoxes from "./AllergenBoxes.svelte";
  import { GROUPS, type PantryRoom } from "./pantry.svelte";

  interface Props {
    room: PantryRoom;
    thing: PantryThing | null;
    onclose: () => void;
  }
  let { room, thing, onclose }: Props = $props();
  const seen = untrack(() => thing);
  const from = seen?.ingredient;
  const c = from?.composition;
  let group = $state<Ingredient["group"]>(from?.group ?? "vegetable");
  let allergens = $state<string[]>([...(from?.allergens ?? [])]);
  let retired = $state(from?.retired ?? false);
  const typed = $state({
    name: from?.name ?? "",
    water: String(c?.water_g_per_100g ?? ""),
    protein: String(c?.protein_g_per_100g ?? ""),
    fat: String(c?.fat_g_per_100g ?? ""),
    carbohydrate: String(c?.carbohydrate_g_per_100g ?? ""),
    sugars: String(c?.sugars_g_per_100g ?? "0"),
    sodium: String(c?.sodium_mg_per_100g ?? "0"),
    cup: String(from?.g_per_cup ?? 0),
    piece: from?.pieces?.[0]?.name ?? "",
    pieceMass: String(from?.pieces?.[0]?.mass_g ?? ""),
    price: String(from?.price_per_kg ?? "0"),
    remark: from?.remark ?? "",
  });
  let refused = $state<string | null>(null);

  const read = async (text: string) => (text.trim() ? (await api.read("number", text, "metric")).value : 0);

  async function written(): Promise<Ingredient> {
    const [water = 0, protein = 0, fat = 0, carbohydrate = 0, sugars = 0, sodium = 0, cup = 0] =
      await Promise.all(
        [
          typed.water,
          typed.protein,
          typed.fat,
          typed.carbohydrate,
          typed.sugars,
          typed.sodium,
          typed.cup,
        ].map(read),
      );
    const first = typed.piece.trim()
      ? [{ name: typed.piece.trim(), mass_g: await read(typed.pieceMass) }]
      : [];
    return {
      key: from?.key ?? room.freeKey(typed.name),
      name: typed.name.trim(),
      group,
      composition: {
        water_g_per_100g: water,
        protein_g_per_100g: protein,
        fat_g_per_100g: fat,
        carbohydrate_g_per_100g: carbohydrate,
        ash_g_per_100g: c?.ash_g_per_100g ?? 0,
        sodium_mg_per_100g: sodium,
        sugars_g_per_100g: sugars,
      },
      composition_note: from?.composition_note ?? "the cook's own figures",
      g_per_cup: cup,
      volume_source: cup === from?.g_per_cup ? (from.volume_source ?? "") : cup ? "the cook's own" : "",
      pieces: [...first, ...(from?.pieces?.slice(1) ?? [])],
      allergens,
      temp_c: from?.temp_c ?? 12,
      price_per_kg: typed.price.replace(",", "."),
      aliases: from?.aliases ?? [],
      remark: typed.remark,
      house: null,
      retired,
    };
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = null;
    try {
      const ingredient = await written();
      const done = await room.attempt(
        async () => {
          await api.saveIngredient(ingredient, seen?.revision ?? 0);
        },
        seen ? "Corrected" : "Added",
      );
      if (done) onclose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
  const numbers = [
    ["water", "Water"],
    ["protein", "Protein"],
    ["fat", "Fat"],
    ["carbohydrate", "Carbohydrate"],
    ["sugars", "of it sugars"],
    ["sodium", "Sodium, mg"],
  ] as const;
</script>

<Sheet open title={from ? `Correct ${from.name}` : "Add an ingredient"} {onclose}>
  <form class="flex flex-wrap items-start gap-x-4 gap-y-3.5" onsubmit={save}>
    <TextField label="Name" width="15rem" value={typed.name} oninput={(t) => (typed.name = t)} />
    <PickField
      label="Kind"
      width="12rem"
      value={group}
      options={Object.entries(GROUPS).map(([key, title]) => ({ key, title }))}
      onpick={(key) => (group = key as Ingredient["group"])}
    />
    <fieldset class="w-full">
      <legend class="text-[0.9375rem] font-semibold">In 100 g, grams, as on the label</legend>
      <div class="mt-1 flex flex-wrap gap-3">
        {#each numbers as [name, label] (name)}
          <TextField {label} width="6.25rem" value={typed[name]} oninput={(t) => (typed[name] = t)} />
        {/each}
      </div>
    </fieldset>
    <TextField
      label="Grams in a cup"
      width="7rem"
      value={typed.cup}
      oninput={(t) => (typed.cup = t)}
      hint="0 when nobody measures it so"
    />
    <TextField
      label="A piece is called"
      width="8rem"
      value={typed.piece}
      oninput={(t) => (typed.piece = t)}
      placeholder="clove, slice"
    />
    <TextField
      label="and weighs, g"
      width="7rem"
      value={typed.pieceMass}
      oninput={(t) => (typed.pieceMass = t)}
    />
    <TextField label="Price of a kilo" width="7rem" value={typed.price} oninput={(t) => (typed.price = t)} />
    <AllergenBoxes {allergens} onchange={(now) => (allergens = now)} />
    <TextField label="Remark" width="28rem" value={typed.remark} oninput={(t) => (typed.remark = t)} />
    {#if from}<label class="flex min-h-10 w-full items-center gap-2"
        ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={retired} /> retired:
        not offered any more</label
      >{/if}
    {#if refused ?? room.problem}<p role="alert" class="w-full text-error">{refused ?? room.problem}</p>{/if}
    <button class="act-main">{from ? "Save" : "Add it"}</button>
  </form>
</Sheet>
