<!-- Add a delivery, or edit one. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type KnownLot, type Lot, type Meat } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { LarderRoom } from "./larder.svelte";

  interface Props {
    room: LarderRoom;
    known: KnownLot | null;
    meats: Meat[];
    onclose: () => void;
  }
  let { room, known, meats, onclose }: Props = $props();
  const offered = untrack(() => meats.filter((m) => !m.retired));
  const start = untrack<Lot>(
    () =>
      known?.lot ?? {
        key: "new",
        meat: offered[0]?.key ?? "",
        name: "",
        left_mass_g: 0,
        price_per_kg: offered[0]?.price_per_kg ?? "0",
        delivered: today(),
        use_by: null,
        evidence: [],
        closed: false,
      },
  );
  let lot = $state<Lot>({ ...start });
  let mass = $state(start.left_mass_g ? amount({ kind: "mass_g", value: start.left_mass_g }, units) : "");
  let refused = $state<string | null>(null);
  const meatName = $derived(meats.find((m) => m.key === lot.meat)?.name ?? "");

  function pick(key: string): void {
    lot.meat = key;
    lot.price_per_kg = meats.find((m) => m.key === key)?.price_per_kg ?? lot.price_per_kg;
  }
  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refused = null;
    try {
      const { value } = await api.read("mass_g", mass, units.system);
      const written = {
        ...lot,
        left_mass_g: value,
        name: lot.name.trim() || `${meatName}, ${lot.delivered}`,
      };
      const done = await room.attempt(async () => {
        await (known ? api.saveLot(written, known.revision) : api.addLot(written));
      }, "Added");
      if (done) onclose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
</script>

<Sheet open title={known ? `Edit ${known.lot.name}` : "Add a delivery"} {onclose}>
  <form class="flex flex-wrap items-start gap-x-4 gap-y-4" onsubmit={save}>
    {#if known}
      <p class="w-full text-[0.9375rem]">
        {meatName}. A lot keeps its meat; close it and write a new one for another.
      </p>
    {:else}
      <PickField
        label="Meat"
        width="14rem"
        value={lot.meat}
        options={offered.map((m) => ({ key: m.key, title: m.name }))}
        onpick={pick}
      />
    {/if}
    <TextField
      label="How you call it"
      width="14rem"
      value={lot.name}
      placeholder={`${meatName}, ${lot.delivered}`}
      oninput={(t) => (lot.name = t)}
    />
    <TextField
      label="Left of it"
      width="7.5rem"
      value={mass}
      placeholder="5 kg"
      oninput={(t) => (mass = t)}
      {refused}
    />
    <TextField
      label="Paid for a kilo"
      width="7.5rem"
      value={String(lot.price_per_kg)}
      oninput={(t) => (lot.price_per_kg = t.replace(",", "."))}
    />
    <TextField
      label="It came on"
      type="date"
      width="10rem"
      value={lot.delivered}
      oninput={(t) => (lot.delivered = t)}
    />
    <TextField
      label="Use by"
      type="date"
      width="10rem"
      value={lot.use_by ?? ""}
      oninput={(t) => (lot.use_by = t || null)}
    />
    {#if known}
      <label class="flex min-h-10 w-full items-center gap-2"
        ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={lot.closed} /> used up:
        not offered any more</label
      >
      <a class="text-primary underline underline-offset-3" href={`/lots/${encodeURIComponent(known.lot.key)}`}
        >Where it went</a
      >
    {/if}
    {#if room.problem}<p role="alert" class="w-full text-error">{room.problem}</p>{/if}
    <button class="act-main">{known ? "Save" : "Write it down"}</button>
  </form>
</Sheet>
