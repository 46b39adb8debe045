<!-- What is left in the bowl when all are shaped: with the pieces it says what stays on bowl and gloves. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, type Weighing } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Told } from "../../lib/told.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    run: Weighing;
    onnoted: (run: Weighing) => void;
  }
  let { run, onnoted }: Props = $props();
  const told = new Told();
  let text = $state(
    untrack(() => (run.left_g == null ? "" : amount({ kind: "mass_g", value: run.left_g }, units))),
  );
  let said = $state("");

  const write = () =>
    told.run(async () => {
      said = "";
      const left_g = (await api.read("mass_g", text, units.system)).value;
      onnoted(await api.noteLeftover(run.id, left_g));
      said = "Written down.";
    });
</script>

<form
  class="mt-5 flex flex-wrap items-end gap-3"
  onsubmit={(event) => {
    event.preventDefault();
    void write();
  }}
>
  <TextField
    label="Left in the bowl, weighed"
    value={text}
    placeholder="0 g"
    width="9rem"
    oninput={(t) => (text = t)}
  />
  <button class="act h-[2.625rem]" disabled={!text.trim()}>Write it down</button>
  {#if said}<p role="status" class="pb-2 quiet">
      {said}
      <a class="text-primary underline underline-offset-3" href="/log/learnt">What is learnt</a>
    </p>{/if}
  {#if told.problem}<p role="alert" class="w-full text-error">{told.problem}</p>{/if}
</form>
