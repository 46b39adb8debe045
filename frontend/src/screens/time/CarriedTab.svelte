<!-- Raw pieces carried elsewhere: which box, how much ice, papers, and how long they may lie out of the cold. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Carried, type Formula, type Trip } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";

  let { formula }: { formula: Formula } = $props();
  const told = new Told();
  let trip = $state.raw<Trip>({ hours: 2, around_c: 25, from_c: 3, box: "usual", box_l: 25 });
  const asked = new Resource<[Formula, Trip], Carried>(([now, way], signal) =>
    api.carried(now, way, units.system, signal),
  );
  $effect(() => asked.ask([formula, trip]));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const shown = (kind: "temp_c", value: number) => amount({ kind, value }, units);
  const change = (part: Partial<Trip>) => (trip = { ...trip, ...part });
  const boxes = $derived(found?.boxes ?? []);
</script>

<div class="mt-4 flex flex-wrap items-end gap-3">
  <QuickField
    label="On the way"
    value={`${trip.hours} h`}
    width="6rem"
    oncommit={(text) => told.read("time_s", text, (value) => change({ hours: value / 3600 }))}
  />
  <QuickField
    label="Air round the box"
    value={shown("temp_c", trip.around_c)}
    width="7.5rem"
    oncommit={(text) => told.read("temp_c", text, (value) => change({ around_c: value }))}
  />
  <QuickField
    label="Packed at"
    value={shown("temp_c", trip.from_c)}
    width="6.5rem"
    oncommit={(text) => told.read("temp_c", text, (value) => change({ from_c: value }))}
  />
  <PickField
    label="Box"
    value={trip.box}
    options={boxes.map((b) => ({ key: b.key, title: b.title }))}
    onpick={(key) => change({ box: key as Trip["box"] })}
  />
  <QuickField
    label="Its litres"
    value={String(trip.box_l)}
    width="5.5rem"
    oncommit={(text) => told.read("number", text, (value) => change({ box_l: value }))}
  />
</div>
{#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
{#if asked.problem}<p role="alert" class="mt-3 max-w-[44rem] text-error">{asked.problem.detail}</p>
{:else if found}
  <div class="mt-4 max-w-[52rem]" data-carried>
    <p class="text-[1.0625rem] leading-snug font-semibold" role="status"><Say text={found.says} /></p>
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3">
      <Fact label={found.pieces === 1 ? "1 raw piece" : `${found.pieces} raw pieces`}
        ><Qty kind="mass_g" value={found.mass_g} /></Fact
      >
      {#if found.papers > 0}<Fact
          label={`Papers, in ${found.stacks === 1 ? "1 stack" : `${found.stacks} stacks`}`}
          >{found.papers}</Fact
        >{/if}
      <Fact label="One layer out of the cold"
        >{#if found.out_min == null}over 4 h{:else}<Qty kind="minutes" value={found.out_min} />{/if}</Fact
      >
      <Fact label="Arrives without ice at"><Qty kind="temp_c" value={found.box.arrives_c} /></Fact>
      <Fact label="Cold food stays at or below"><Qty kind="temp_c" value={found.line_c} /></Fact>
    </div>
    <h2 class="mt-5 text-[0.8125rem] quiet">Ice by box</h2>
    <dl class="mt-1 max-w-[30rem]" aria-label="Ice by box">
      {#each found.boxes as box (box.key)}
        <div
          class={[
            "flex justify-between gap-4 border-b border-base-300 py-1.5",
            box.key === trip.box && "font-semibold",
          ]}
        >
          <dt>{box.title}</dt>
          <dd class="numeral"><Qty kind="mass_g" value={box.ice_g} /></dd>
        </div>
      {/each}
    </dl>
    <ul class="mt-4 grid gap-y-2" aria-label="What to mind">
      {#each found.remarks as remark, n (n)}
        <li class="border-l-[3px] border-base-300 pl-2.5 text-[0.9375rem] leading-snug">
          <Say text={remark} />
        </li>
      {/each}
    </ul>
    <p class="mt-3 max-w-[44rem] text-[0.8125rem] leading-snug quiet">
      Heat through the walls melts the ice; what the pieces bring is counted. The line: {found.line_source}.
    </p>
  </div>
{:else}<p class="mt-4 quiet" aria-busy="true">Packing it …</p>{/if}
