<!-- What this pot really took: written down, it teaches how fast water leaves it. -->
<script lang="ts">
  import { api, type Pot } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Told } from "../../lib/told.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    pot: Pot;
    boil: "gentle" | "simmer" | "rolling";
    diameter_mm: number;
  }
  let { pot, boil, diameter_mm }: Props = $props();
  const told = new Told();
  let took = $state("");
  let weighed = $state("");
  let said = $state("");
  let busy = $state(false);

  const write = () =>
    told.run(async () => {
      busy = true;
      said = "";
      try {
        const took_s = (await api.read("time_s", took, units.system)).value;
        const left_g = weighed.trim()
          ? (await api.read("mass_g", weighed, units.system)).value
          : pot.cook.left_g;
        const start_g = pot.cook.start_g;
        const found = await api.notePot({ start_g, left_g, took_s, boil, diameter_mm });
        const row = found.learnt.find((one) => one.figure === "evaporation" && one.counted > 0);
        said = row ? "Written down." : "Written down; it does not fit the rest and does not count.";
        took = "";
      } finally {
        busy = false;
      }
    });
</script>

<details class="mt-3">
  <summary class="cursor-pointer py-1 text-[0.9375rem] text-primary">How long did it take?</summary>
  <form
    class="mt-1 mb-4 flex flex-wrap items-end gap-2.5"
    onsubmit={(event) => {
      event.preventDefault();
      void write();
    }}
  >
    <TextField
      label="From the boil"
      value={took}
      placeholder="25 min"
      width="5.25rem"
      oninput={(t) => (took = t)}
    />
    <TextField
      label="Left, weighed"
      value={weighed}
      placeholder={amount({ kind: "mass_g", value: pot.cook.left_g }, units)}
      width="5.25rem"
      oninput={(t) => (weighed = t)}
    />
    <button class="act h-[2.625rem] text-sm" disabled={busy || !took.trim()}>Write it down</button>
  </form>
  {#if told.problem}<p role="alert" class="mt-1.5 text-[0.875rem] text-error">{told.problem}</p>{/if}
  {#if said}<p role="status" class="mt-1 text-[0.875rem] quiet">
      {said}
      <a class="text-primary underline underline-offset-3" href="/log/learnt">What is learnt</a>
    </p>{/if}
</details>
