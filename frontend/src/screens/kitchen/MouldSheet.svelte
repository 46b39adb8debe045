<!-- One tin, tray, scoop or ring, written down or corrected: inside sizes, or filled with water and weighed. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Kitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import SheetForm from "./SheetForm.svelte";

  type Mould = NonNullable<Kitchen["moulds"]>[number];
  interface Props {
    mould: Mould | null;
    taken: string[];
    problem: string | null;
    onclose: () => void;
    onsave: (mould: Mould | null) => Promise<void>;
  }
  let { mould, taken, problem, onclose, onsave }: Props = $props();
  const start = untrack(() => mould);
  const mm = (value: number | undefined) => (value ? amount({ kind: "length_mm", value }, units) : "");
  let kind = $state<Mould["kind"]>(start?.kind ?? "tin");
  const typed = $state({
    name: start?.name ?? "",
    length: mm(start?.length_mm),
    width: mm(start?.width_mm),
    height: mm(start?.height_mm),
    baseLength: mm(start?.base_length_mm),
    baseWidth: mm(start?.base_width_mm),
    water: start?.volume_ml ? amount({ kind: "mass_g", value: start.volume_ml }, units) : "",
    number: start?.scoop_number ? String(start.scoop_number) : "",
  });
  const box = $derived(kind === "tin" || kind === "tray");

  async function keep(): Promise<void> {
    const read = async (unit: "length_mm" | "mass_g" | "number", text: string) =>
      text.trim() ? (await api.read(unit, text, units.system)).value : 0;
    const sized = kind !== "scoop";
    const [length, width, height, baseLength, baseWidth, water, number] = await Promise.all([
      sized ? read("length_mm", typed.length) : 0,
      box ? read("length_mm", typed.width) : 0,
      sized ? read("length_mm", typed.height) : 0,
      box ? read("length_mm", typed.baseLength) : 0,
      box ? read("length_mm", typed.baseWidth) : 0,
      // A gram of water is a millilitre.
      kind === "ring" ? 0 : read("mass_g", typed.water),
      kind === "scoop" ? read("number", typed.number) : 0,
    ]);
    await onsave({
      key: start?.key ?? freshKey(typed.name, taken, "mould"),
      name: typed.name,
      kind,
      length_mm: length,
      width_mm: width,
      height_mm: height,
      base_length_mm: baseLength,
      base_width_mm: baseWidth,
      volume_ml: water,
      scoop_number: Math.round(number),
    });
  }
</script>

<SheetForm
  was={start}
  fresh="A tin, tray, scoop or ring"
  bind:name={typed.name}
  bind:kind
  kinds={["tin", "tray", "scoop", "ring"]}
  {problem}
  {onclose}
  onkeep={keep}
  onputaway={() => onsave(null)}
>
  {#if kind === "scoop"}
    <TextField
      label="Its number"
      width="7rem"
      value={typed.number}
      oninput={(t) => (typed.number = t)}
      hint="so many level ones fill a US quart"
    />
  {:else}
    <TextField
      label={box ? "Length at the brim" : "Across, inside"}
      width="8rem"
      value={typed.length}
      oninput={(t) => (typed.length = t)}
    />
    {#if box}<TextField
        label="Width at the brim"
        width="8rem"
        value={typed.width}
        oninput={(t) => (typed.width = t)}
      />{/if}
    <TextField label="Height, inside" width="8rem" value={typed.height} oninput={(t) => (typed.height = t)} />
  {/if}
  {#if box}
    <TextField
      label="Length at the bottom"
      width="8rem"
      value={typed.baseLength}
      oninput={(t) => (typed.baseLength = t)}
      hint="empty: straight sides"
    />
    <TextField
      label="Width at the bottom"
      width="8rem"
      value={typed.baseWidth}
      oninput={(t) => (typed.baseWidth = t)}
    />
  {/if}
  {#if kind !== "ring"}
    <TextField
      label="Water it holds"
      width="8rem"
      value={typed.water}
      oninput={(t) => (typed.water = t)}
      hint={kind === "scoop" ? "when it has no number; weighed" : "weighed to the brim; empty: by its size"}
    />
  {/if}
</SheetForm>
