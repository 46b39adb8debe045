<!-- Orders as they come: what the kitchen holds in an hour, how long guests wait, and what to hold ready. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Formula, type Orders, type OrdersFigures, type TimingEdit } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import { Told } from "../../lib/told.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";
  import { changeOrders, ordersOf } from "./orders.svelte";

  let { formula, onedit }: { formula: Formula; onedit: (edit: TimingEdit) => void } = $props();
  const told = new Told();
  const orders = $derived(ordersOf(formula));
  const asked = new Resource<[Formula, Orders], OrdersFigures>(([now, expected], signal) =>
    api.orders(now, expected, units.system, signal),
  );
  $effect(() => asked.ask([formula, orders]));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value);
  const fields: { key: keyof Orders; label: string; unit: string }[] = [
    { key: "per_hour", label: "Orders an hour", unit: "" },
    { key: "portions", label: "Portions an order", unit: "" },
    { key: "open_min", label: "Open for", unit: "min" },
    { key: "rush_factor", label: "In the rush, times", unit: "" },
    { key: "rush_from_min", label: "Rush begins after", unit: "min" },
    { key: "rush_min", label: "Rush lasts", unit: "min" },
    { key: "wait_min", label: "A wait that is good", unit: "min" },
  ];
  /** Times are read by the core as times; a bare number is minutes there. */
  const type = (field: (typeof fields)[number]) => (text: string) =>
    field.unit
      ? told.read("time_s", text, (value) => changeOrders(formula, { [field.key]: value / 60 }))
      : told.read("number", text, (value) => changeOrders(formula, { [field.key]: value }));
  const whole = (value: number) => String(Math.floor(value));
</script>

<div class="mt-4 grid grid-cols-[repeat(auto-fill,minmax(7.25rem,1fr))] items-end gap-3">
  {#each fields as field (field.key)}
    <QuickField
      label={field.label}
      value={`${orders[field.key]}${field.unit ? ` ${field.unit}` : ""}`}
      width="100%"
      oncommit={type(field)}
    />
  {/each}
  <QuickField
    label="Cooks"
    value={String(formula.timing.cooks)}
    width="100%"
    oncommit={(text) => onedit({ kind: "type-timing", what: "cooks", text })}
  />
</div>
{#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
{#if asked.problem}<p role="alert" class="mt-3 max-w-[44rem] text-error">{asked.problem.detail}</p>
{:else if found}
  <div class="mt-4" data-orders={found.enough ? "enough" : "short"}>
    <p
      class={["max-w-[44rem] text-[1.0625rem] leading-snug font-semibold", !found.enough && "text-error"]}
      role="status"
    >
      <Say text={found.says} />
    </p>
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3">
      <Fact label="Held at most, portions an hour">{whole(found.per_hour)}</Fact>
      <Fact label="Asked for in the rush">{Math.round(found.rush_per_hour)}</Fact>
      <Fact label="The surface alone">{whole(found.surface_per_hour)}</Fact>
      <Fact label="The hands alone">{whole(found.hands_per_hour)}</Fact>
      <Fact label="Order to plate, nobody before"><Qty kind="minutes" value={found.soonest_min} /></Fact>
      <Fact label="Raw pieces for nine evenings of ten">{found.raw}</Fact>
    </div>
    <div class="mt-5 grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
      <div class="min-w-0 overflow-x-auto" role="region" aria-label="What holding ready does" tabindex="-1">
        <table class="w-full text-left">
          <caption class="pb-1 text-left text-[0.8125rem] quiet"
            >Pieces cooked ahead and replaced as they go; thrown away once they are too old to build with.</caption
          >
          <thead>
            <tr class="border-b border-base-content align-bottom text-[0.8125rem]">
              <th scope="col" class="py-1 pr-3 font-semibold">Held ready</th>
              <th scope="col" class="py-1 pr-3 text-right font-semibold">In time</th>
              <th scope="col" class="py-1 pr-3 text-right font-semibold">Half wait</th>
              <th scope="col" class="py-1 pr-3 text-right font-semibold">Nine of ten</th>
              <th scope="col" class="py-1 pr-3 text-right font-semibold">Most at once</th>
              <th scope="col" class="py-1 text-right font-semibold">Thrown away</th>
            </tr>
          </thead>
          <tbody>
            {#each found.held as way (way.ready)}
              <tr
                class={["border-b border-base-300", way.ready === found.ready && "bg-base-200 font-semibold"]}
                aria-current={way.ready === found.ready ? "true" : undefined}
              >
                <th scope="row" class="py-1.5 pr-3 font-[inherit]"
                  >{way.ready === 0 ? "none" : way.ready}{way.ready === found.ready
                    ? found.enough
                      ? ", enough"
                      : ", best"
                    : ""}</th
                >
                <td class="py-1.5 pr-3 text-right numeral"><Qty kind="frac" value={way.within_frac} /></td>
                <td class="py-1.5 pr-3 text-right numeral"><Qty kind="minutes" value={way.half_min} /></td>
                <td class="py-1.5 pr-3 text-right numeral"><Qty kind="minutes" value={way.ninth_min} /></td>
                <td class="py-1.5 pr-3 text-right numeral">{way.queue}</td>
                <td class="py-1.5 text-right numeral"><Qty kind="frac" value={way.wasted_frac} /></td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <div class="min-w-0">
        <h2 class="text-[0.8125rem] quiet">
          {found.binds === "surface" ? "The surface" : "The hands"} hold it back. Portions an hour with more:
        </h2>
        <dl class="mt-1">
          {#each found.more as more, n (n)}
            <div class="flex justify-between border-b border-base-300 py-1.5">
              <dt><Say text={more.what} /></dt>
              <dd class="numeral font-semibold">{whole(more.per_hour)}</dd>
            </div>
          {/each}
        </dl>
      </div>
    </div>
    <p class="mt-3 max-w-[44rem] text-[0.8125rem] leading-snug quiet">
      Thirty evenings are drawn, guests coming independently of each other. The minutes on the heat are those
      of the heat step; hands and the time until the next piece lies are common practice, no published source.
    </p>
  </div>
{:else}<p class="mt-4 quiet" aria-busy="true">Drawing evenings …</p>{/if}
