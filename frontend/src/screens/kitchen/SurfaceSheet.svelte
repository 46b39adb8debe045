<!-- One surface, oven or grate: its size, and how it gives heat. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Kitchen, type StoredKitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import PickField from "../../lib/ui/PickField.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import { readHeating, typedHeating } from "./heating";
  import HeatingFields from "./HeatingFields.svelte";
  import SheetForm from "./SheetForm.svelte";

  type Surface = Kitchen["surfaces"][number];
  interface Props {
    surface: Surface | null;
    taken: string[];
    problem: string | null;
    options: StoredKitchen["options"];
    onclose: () => void;
    onsave: (surface: Surface | null) => Promise<void>;
  }
  let { surface, taken, problem, options, onclose, onsave }: Props = $props();
  const start = untrack(() => surface);
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  let kind = $state<Surface["kind"]>(start?.kind ?? "pan");
  let round = $state(start?.round_shape ?? true);
  let heating = $state(untrack(() => typedHeating(start?.heating, units)));
  const typed = $state({
    name: start?.name ?? "",
    width: mm(start?.width_mm ?? 280),
    depth: mm(start?.depth_mm ?? 280),
  });

  const read = async (text: string) => (await api.read("length_mm", text, units.system)).value;

  async function keep(): Promise<void> {
    const width = await read(typed.width);
    await onsave({
      key: start?.key ?? freshKey(typed.name, taken, "surface"),
      name: typed.name,
      kind,
      width_mm: width,
      depth_mm: round ? width : await read(typed.depth),
      round_shape: round,
      loss_factor: start?.loss_factor ?? 1,
      heating: await readHeating(heating, units.system),
    });
  }
</script>

<SheetForm
  was={start}
  fresh="A surface to cook on"
  bind:name={typed.name}
  bind:kind
  kinds={["plate", "pan", "grate", "oven"]}
  {problem}
  {onclose}
  onkeep={keep}
  onputaway={() => onsave(null)}
>
  <PickField
    label="Outline"
    width="8rem"
    value={round ? "round" : "square"}
    options={[
      { key: "round", title: "round" },
      { key: "square", title: "rectangle" },
    ]}
    onpick={(key) => (round = key === "round")}
  />
  <TextField
    label={round ? "Across" : kind === "oven" ? "Tray, width" : "Width"}
    width="7rem"
    value={typed.width}
    oninput={(t) => (typed.width = t)}
  />
  {#if !round}<TextField
      label={kind === "oven" ? "Tray, depth" : "Depth"}
      width="7rem"
      value={typed.depth}
      oninput={(t) => (typed.depth = t)}
    />{/if}
  <HeatingFields {kind} {options} bind:typed={heating} />
</SheetForm>
