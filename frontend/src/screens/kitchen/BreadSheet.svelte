<!-- One bread, written down or corrected: what it is, how wide, what it weighs and costs, what is declared on it. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Kitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import SheetForm from "./SheetForm.svelte";

  type Bread = Kitchen["buns"][number];
  interface Props {
    bread: Bread | null;
    taken: string[];
    problem: string | null;
    onclose: () => void;
    onsave: (bread: Bread | null) => Promise<void>;
  }
  let { bread, taken, problem, onclose, onsave }: Props = $props();
  const start = untrack(() => bread);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  let kind = $state<NonNullable<Bread["kind"]>>(start?.kind ?? "bun");
  const typed = $state({
    name: start?.name ?? "",
    across: mm(start?.diameter_mm ?? 100),
    deep: mm(start?.depth_mm || 100),
    mass: amount({ kind: "mass_g", value: start?.mass_g ?? 60 }, units),
    price: start?.price_each ?? "0.40",
    allergens: start?.allergens.join(", ") ?? "gluten (wheat)",
  });

  async function keep(): Promise<void> {
    const read = async (unit: "length_mm" | "mass_g" | "number", text: string) =>
      (await api.read(unit, text, units.system)).value;
    const [across, deep, mass, price] = await Promise.all([
      read("length_mm", typed.across),
      kind === "slice" ? read("length_mm", typed.deep) : 0,
      read("mass_g", typed.mass),
      read("number", String(typed.price)),
    ]);
    await onsave({
      key: start?.key ?? freshKey(typed.name, taken, "bread"),
      name: typed.name,
      kind,
      diameter_mm: across,
      depth_mm: deep,
      mass_g: mass,
      price_each: price.toFixed(2),
      allergens: typed.allergens
        .split(/\s*[,;]\s*/)
        .map((a) => a.trim())
        .filter(Boolean),
    });
  }
</script>

<SheetForm
  was={start}
  fresh="A bread"
  bind:name={typed.name}
  bind:kind
  kinds={["bun", "slice", "tortilla", "flatbread"]}
  {problem}
  {onclose}
  onkeep={keep}
  onputaway={() => onsave(null)}
>
  <TextField
    label={kind === "slice" ? "Length" : "Across"}
    width="7rem"
    value={typed.across}
    oninput={(t) => (typed.across = t)}
    hint={kind === "bun" ? "where it is cut" : ""}
  />
  {#if kind === "slice"}
    <TextField label="Width" width="7rem" value={typed.deep} oninput={(t) => (typed.deep = t)} />
  {/if}
  <TextField label="Weight" width="7rem" value={typed.mass} oninput={(t) => (typed.mass = t)} />
  <TextField
    label={`Price each, ${units.currency}`}
    width="7rem"
    value={String(typed.price)}
    oninput={(t) => (typed.price = t)}
  />
  <TextField
    label="Allergens declared"
    width="20rem"
    value={typed.allergens}
    oninput={(t) => (typed.allergens = t)}
    hint="as on its label, with commas between"
  />
</SheetForm>
