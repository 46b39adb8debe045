<!-- One thing of the list: what is there of it and how it is sold; of a meat, a delivery that is taken in. -->
<script lang="ts">
  import { onMount, untrack } from "svelte";
  import { api, type ShopLine, type Stocked } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import { measuredNow } from "../../lib/measured";
  import { newToken } from "../../lib/outbox.svelte";
  import { Told } from "../../lib/told.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { Received } from "../../lib/api/client";

  interface Props {
    line: ShopLine;
    onclose: () => void;
    onkeep: (stocked: Stocked) => Promise<void>;
    onreceived: () => void;
  }
  let { line, onclose, onkeep, onreceived }: Props = $props();
  const told = new Told();
  const bread = untrack(() => line.kind === "bread");
  const unit = bread ? "pieces" : "g";
  let stocked = $state.raw<Stocked | null>(null);
  let typed = $state({ on_hand: "", par: "", pack: "", lead: "", supplier: "", shelf: "" });
  let came = $state({ mass: "", price: untrack(() => String(line.price)), use_by: "", temp: "" });
  let received = $state.raw<Received | null>(null);
  const shown = (value: number) =>
    value === 0 ? "" : bread ? String(value) : amount({ kind: "mass_g", value }, units);
  onMount(() => {
    const { kind, key } = line;
    void told.run(async () => {
      const kept = (await api.stock()).find((s) => s.kind === kind && s.key === key);
      stocked = kept ?? { kind, key, on_hand: 0, par: 0, pack: 0, supplier: "", shelf: "", lead_days: 0 };
      typed = {
        on_hand: shown(stocked.on_hand),
        par: shown(stocked.par),
        pack: shown(stocked.pack),
        lead: stocked.lead_days ? String(stocked.lead_days) : "",
        supplier: stocked.supplier,
        shelf: stocked.shelf,
      };
    });
  });
  /** What was typed, as grams or pieces; nothing typed is none. */
  async function amountOf(text: string): Promise<number> {
    if (!text.trim()) return 0;
    return (await api.read(bread ? "number" : "mass_g", text, units.system)).value;
  }
  function keep(event: SubmitEvent): void {
    event.preventDefault();
    const before = stocked;
    if (!before) return;
    void told.run(async () => {
      await onkeep({
        ...before,
        on_hand: await amountOf(typed.on_hand),
        par: await amountOf(typed.par),
        pack: await amountOf(typed.pack),
        lead_days: typed.lead.trim()
          ? Math.round((await api.read("number", typed.lead, units.system)).value)
          : 0,
        supplier: typed.supplier.trim(),
        shelf: typed.shelf.trim(),
      });
    });
  }
  function take(event: SubmitEvent): void {
    event.preventDefault();
    void told.run(async () => {
      const mass = (await api.read("mass_g", came.mass, units.system)).value;
      const temp = came.temp.trim() ? (await api.read("temp_c", came.temp, units.system)).value : null;
      received = await api.receive(
        {
          key: "new",
          meat: line.key,
          name: `${line.supplier || line.name}, ${today()}`,
          left_mass_g: mass,
          price_per_kg: came.price.trim().replace(",", "."),
          delivered: today(),
          use_by: came.use_by || null,
          evidence: [],
          closed: false,
        },
        temp,
        units.system,
        { token: newToken(), ...measuredNow() },
      );
      onreceived();
    });
  }
</script>

<Sheet open title={line.name} {onclose}>
  {#if line.kind === "meat"}
    <form class="mb-5 border-b border-base-300 pb-5" onsubmit={take} aria-label="A delivery">
      <h3 class="font-semibold">It has come</h3>
      {#if received}
        <p class="mt-1" role="status"><Say text={received.arrival.says} /> It lies in the larder as a lot.</p>
      {:else}
        <p class="mt-0.5 text-sm quiet">
          It becomes a lot of the larder. Measure it between two packs; what is too warm is refused.
        </p>
        <div class="mt-2 flex flex-wrap items-end gap-3">
          <TextField
            label="Weighs"
            width="7rem"
            value={came.mass}
            placeholder={shown(line.bought)}
            oninput={(t) => (came.mass = t)}
          />
          <TextField
            label="Temperature"
            width="6.5rem"
            value={came.temp}
            placeholder={units.system === "us" ? "38 °F" : "3 °C"}
            oninput={(t) => (came.temp = t)}
          />
          <TextField
            label="Paid for a kilo"
            width="7rem"
            value={came.price}
            oninput={(t) => (came.price = t)}
          />
          <TextField
            label="Use by"
            type="date"
            width="10rem"
            value={came.use_by}
            oninput={(t) => (came.use_by = t)}
          />
          <button class="act-main" disabled={!came.mass.trim()}>Take it in</button>
        </div>
      {/if}
    </form>
  {/if}
  <form onsubmit={keep} aria-label="What is kept of it">
    <h3 class="font-semibold">What is kept of it</h3>
    <!-- Nothing is typed before it is known what stands there: what comes later would take it away again. -->
    {#if stocked}<div class="mt-2 flex flex-wrap items-end gap-3">
        {#if line.kind !== "meat"}
          <TextField
            label="There now"
            width="7rem"
            value={typed.on_hand}
            placeholder={`0 ${unit}`}
            oninput={(t) => (typed.on_hand = t)}
          />
        {/if}
        <TextField
          label="Always to have"
          width="7rem"
          value={typed.par}
          placeholder={`0 ${unit}`}
          oninput={(t) => (typed.par = t)}
        />
        <TextField
          label="Sold in packs of"
          width="7rem"
          value={typed.pack}
          placeholder="loose"
          oninput={(t) => (typed.pack = t)}
        />
        <TextField
          label="Order days before"
          width="7rem"
          value={typed.lead}
          placeholder="0"
          oninput={(t) => (typed.lead = t)}
        />
        <TextField
          label="Supplier"
          width="11rem"
          value={typed.supplier}
          oninput={(t) => (typed.supplier = t)}
        />
        <TextField
          label="Shelf of the shop"
          width="11rem"
          value={typed.shelf}
          placeholder={line.shelf}
          oninput={(t) => (typed.shelf = t)}
        />
      </div>{:else if !told.problem}<p class="mt-2 quiet" aria-busy="true">Looking up what is there …</p>{/if}
    {#if told.problem}<p role="alert" class="mt-3 text-error">{told.problem}</p>{/if}
    <button class="mt-4 act-main" disabled={!stocked}>Keep it</button>
  </form>
</Sheet>
