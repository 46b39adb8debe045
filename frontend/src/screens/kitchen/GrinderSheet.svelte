<!-- One tool to grind with, written down or corrected. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type Kitchen } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { itemKey } from "../../lib/itemKey";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

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
  let refused = $state<string | null>(null);

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = null;
    try {
      const [load, hold] = await Promise.all(
        [typed.load, typed.hold].map(async (text) => (await api.read("mass_g", text, units.system)).value),
      );
      let key = start?.key ?? itemKey(typed.name);
      while (!start && taken.includes(key)) key += "-2";
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
        key: key.slice(0, 60) || "tool",
        name: typed.name,
        kind,
        load_g: load ?? 0,
        hold_up_g: hold ?? 0,
        pace_kg_per_min: pace ?? 0,
        plates_mm: sizes,
      });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
</script>

<Sheet open title={start ? `Correct ${start.name}` : "A tool to grind with"} {onclose}>
  <form class="flex flex-wrap items-start gap-x-4 gap-y-3.5" onsubmit={save}>
    <TextField label="Name" width="16rem" value={typed.name} oninput={(t) => (typed.name = t)} />
    <PickField
      label="Kind"
      width="9rem"
      value={kind}
      options={[
        { key: "grinder", title: "grinder" },
        { key: "processor", title: "processor" },
        { key: "knife", title: "knife" },
      ]}
      onpick={(key) => (kind = key as Grinder["kind"])}
    />
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
    {#if refused ?? problem}<p role="alert" class="w-full text-error">{refused ?? problem}</p>{/if}
    <div class="flex w-full flex-wrap gap-3">
      <button class="act-main">Save</button>
      {#if start}<button type="button" class="act" onclick={() => onsave(null)}>Put it away</button>{/if}
    </div>
  </form>
</Sheet>
