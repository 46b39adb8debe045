<!-- One tool to grind with, written down or corrected. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Kitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { freshKey } from "../../lib/itemKey";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import SheetForm from "./SheetForm.svelte";

  type Grinder = NonNullable<Kitchen["grinders"]>[number];
  interface Props {
    grinder: Grinder | null;
    taken: string[];
    problem: string | null;
    onclose: () => void;
    onsave: (grinder: Grinder | null) => Promise<void>;
  }
  let { grinder, taken, problem, onclose, onsave }: Props = $props();
  const start = untrack(() => grinder);
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
  let kind = $state<Grinder["kind"]>(start?.kind ?? "grinder");
  const typed = $state({
    name: start?.name ?? "",
    load: mass(start?.load_g ?? 1000),
    hold: mass(start?.hold_up_g ?? 60),
    pace: String(start?.pace_kg_per_min ?? 1),
    plates: start?.plates_mm.join(", ") ?? "3, 4.5, 8",
  });

  async function keep(): Promise<void> {
    const [load, hold] = await Promise.all(
      [typed.load, typed.hold].map(async (text) => (await api.read("mass_g", text, units.system)).value),
    );
    const plates =
      kind === "grinder"
        ? typed.plates
            // "4,5" is one plate; a comma with a blank behind it stands between two.
            .split(/;\s*|,\s+|\s+/)
            .filter(Boolean)
        : [];
    const read = async (text: string) => (await api.read("number", text, "metric")).value;
    const [pace, ...sizes] = await Promise.all([typed.pace, ...plates].map(read));
    await onsave({
      key: start?.key ?? freshKey(typed.name, taken, "tool"),
      name: typed.name,
      kind,
      load_g: load ?? 0,
      hold_up_g: hold ?? 0,
      pace_kg_per_min: pace ?? 0,
      plates_mm: sizes,
    });
  }
</script>

<SheetForm
  was={start}
  fresh="A tool to grind with"
  bind:name={typed.name}
  bind:kind
  kinds={["grinder", "processor", "knife"]}
  {problem}
  {onclose}
  onkeep={keep}
  onputaway={() => onsave(null)}
>
  {#if kind === "grinder"}
    <TextField
      label="Plates, mm"
      width="10rem"
      value={typed.plates}
      oninput={(t) => (typed.plates = t)}
      hint="holes, such as 3, 4.5, 8"
    />
  {/if}
  <TextField label="A load" width="7rem" value={typed.load} oninput={(t) => (typed.load = t)} />
  <TextField
    label="Stays in it"
    width="7rem"
    value={typed.hold}
    oninput={(t) => (typed.hold = t)}
    hint="weigh what you scrape out"
  />
  <TextField
    label="Kilos a minute"
    width="7rem"
    value={typed.pace}
    oninput={(t) => (typed.pace = t.replace(",", "."))}
  />
</SheetForm>
