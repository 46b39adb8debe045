<!-- One surface, oven or grate: its size, and how it gives heat. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Kitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import PickField from "../../lib/ui/PickField.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import SheetForm from "./SheetForm.svelte";

  type Surface = Kitchen["surfaces"][number];
  type Heating = NonNullable<Surface["heating"]>;
  interface Props {
    surface: Surface | null;
    taken: string[];
    problem: string | null;
    onclose: () => void;
    onsave: (surface: Surface | null) => Promise<void>;
  }
  let { surface, taken, problem, onclose, onsave }: Props = $props();
  const start = untrack(() => surface);
  const was = start?.heating;
  const mm = (value: number) => amount({ kind: "length_mm", value }, units);
  const degrees = (value: number) => amount({ kind: "temp_c", value }, units);
  let kind = $state<Surface["kind"]>(start?.kind ?? "pan");
  let round = $state(start?.round_shape ?? true);
  let metal = $state<Heating["metal"]>(was?.metal ?? "steel");
  let power = $state<Heating["power"]>(was?.power ?? "usual");
  let fan = $state(was?.fan ?? true);
  let fuel = $state<Heating["fuel"]>(was?.fuel ?? "charcoal");
  let layout = $state<Heating["layout"]>(was?.layout ?? "even");
  let lid = $state(was?.lid ?? true);
  const typed = $state({
    name: start?.name ?? "",
    width: mm(start?.width_mm ?? 280),
    depth: mm(start?.depth_mm ?? 280),
    thickness: was?.thickness_mm ? mm(was.thickness_mm) : "",
    offset: amount({ kind: "delta_temp_k", value: was?.offset_k ?? 0 }, units),
    broiler: degrees(was?.broiler_c ?? 450),
    outdoor: degrees(was?.outdoor_c ?? 20),
    lasts: was?.lasts_min ? String(was.lasts_min) : "",
    factor: String(was?.heat_factor ?? 1),
  });

  const read = async (what: "length_mm" | "number" | "temp_c" | "delta_temp_k", text: string) =>
    (await api.read(what, text, units.system)).value;

  async function keep(): Promise<void> {
    const width = await read("length_mm", typed.width);
    const heating: Heating = {
      metal,
      power,
      fan,
      fuel,
      layout,
      lid,
      thickness_mm: typed.thickness ? await read("length_mm", typed.thickness) : 0,
      offset_k: await read("delta_temp_k", typed.offset || "0"),
      broiler_c: await read("temp_c", typed.broiler),
      outdoor_c: await read("temp_c", typed.outdoor),
      lasts_min: typed.lasts ? await read("number", typed.lasts) : 0,
      heat_factor: await read("number", typed.factor),
    };
    await onsave({
      key: start?.key ?? freshKey(typed.name, taken, "surface"),
      name: typed.name,
      kind,
      width_mm: width,
      depth_mm: round ? width : await read("length_mm", typed.depth),
      round_shape: round,
      loss_factor: start?.loss_factor ?? 1,
      heating,
    });
  }
</script>

<SheetForm
  title={start ? `Correct ${start.name}` : "A surface to cook on"}
  known={start !== null}
  {problem}
  {onclose}
  onkeep={keep}
  onputaway={() => onsave(null)}
>
  <TextField label="Name" width="16rem" value={typed.name} oninput={(t) => (typed.name = t)} />
  <PickField
    label="Kind"
    width="9rem"
    value={kind}
    options={[
      { key: "plate", title: "plate" },
      { key: "pan", title: "pan" },
      { key: "grate", title: "grate" },
      { key: "oven", title: "oven" },
    ]}
    onpick={(key) => (kind = key as Surface["kind"])}
  />
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
  {#if kind === "plate" || kind === "pan"}
    <PickField
      label="Metal"
      width="9rem"
      value={metal ?? "steel"}
      options={["steel", "cast-iron", "stainless", "aluminium", "copper"].map((m) => ({ key: m, title: m }))}
      onpick={(key) => (metal = key as Heating["metal"])}
    />
    <TextField
      label="Thickness"
      width="7rem"
      value={typed.thickness}
      placeholder="usual"
      hint="empty: the usual one"
      oninput={(t) => (typed.thickness = t)}
    />
    <PickField
      label="Burner under it"
      width="9rem"
      value={power ?? "usual"}
      options={[
        { key: "gentle", title: "gentle" },
        { key: "usual", title: "usual" },
        { key: "strong", title: "strong" },
      ]}
      onpick={(key) => (power = key as Heating["power"])}
    />
  {:else if kind === "oven"}
    <PickField
      label="Air"
      width="8rem"
      value={fan ? "fan" : "still"}
      options={[
        { key: "fan", title: "fan" },
        { key: "still", title: "still" },
      ]}
      onpick={(key) => (fan = key === "fan")}
    />
    <TextField
      label="Hotter than it says"
      width="7rem"
      value={typed.offset}
      hint="measured minus set; −10 is cooler"
      oninput={(t) => (typed.offset = t)}
    />
    <TextField
      label="Broiler glows with"
      width="7rem"
      value={typed.broiler}
      hint="as a black body"
      oninput={(t) => (typed.broiler = t)}
    />
  {:else}
    <PickField
      label="Fuel"
      width="8rem"
      value={fuel ?? "charcoal"}
      options={["charcoal", "gas", "wood"].map((f) => ({ key: f, title: f }))}
      onpick={(key) => (fuel = key as Heating["fuel"])}
    />
    <PickField
      label="The fire lies"
      width="9rem"
      value={layout ?? "even"}
      options={[
        { key: "even", title: "evenly" },
        { key: "two-zones", title: "in two zones" },
        { key: "ring", title: "in a ring" },
      ]}
      onpick={(key) => (layout = key as Heating["layout"])}
    />
    <PickField
      label="Lid"
      width="6rem"
      value={lid ? "yes" : "no"}
      options={[
        { key: "yes", title: "yes" },
        { key: "no", title: "no" },
      ]}
      onpick={(key) => (lid = key === "yes")}
    />
    <TextField
      label="Air of the yard"
      width="7rem"
      value={typed.outdoor}
      oninput={(t) => (typed.outdoor = t)}
    />
    <TextField
      label="A load lasts, min"
      width="7rem"
      value={typed.lasts}
      placeholder="usual"
      hint="a reminder only: it makes a remark"
      oninput={(t) => (typed.lasts = t)}
    />
  {/if}
  <TextField
    label="Heat transfer ×"
    width="6rem"
    value={typed.factor}
    hint="1 until readings say otherwise"
    oninput={(t) => (typed.factor = t)}
  />
</SheetForm>
