<!-- What to buy for everything that is served in a span of days; checked off in the shop. -->
<script lang="ts">
  import { api, type ShopLine } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import LineDown from "../../lib/ui/LineDown.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import SpanFields from "../../lib/ui/SpanFields.svelte";
  import TickBox from "../../lib/ui/TickBox.svelte";
  import { shown as days } from "../../lib/span.svelte";
  import { units } from "../../lib/units.svelte";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { dayName } from "../../lib/days";
  import ItemSheet from "./ItemSheet.svelte";
  import { grouped, type Order } from "./groups";
  import Scarcity from "./Scarcity.svelte";
  import { ShoppingBench } from "./shopping.svelte";

  const span = $derived(days.span);
  let order = $state<Order>("shelf");
  let bench = $state.raw<ShoppingBench | null>(null);
  let opened = $state.raw<ShopLine | null>(null);
  $effect(() => {
    const now = new ShoppingBench({ ...span }, String(kitchens.here));
    bench = now;
    void now.load();
    return () => now.close();
  });
  const found = $derived(bench?.found ?? null);
  const groups = $derived(found ? grouped(found.shopping, order) : []);
  const all = $derived(groups.flatMap((g) => g.lines));
  const inBasket = $derived(bench ? all.filter((line) => bench?.isIn(line)).length : 0);
  const there = $derived(found?.shopping.lines.filter((line) => line.bought <= 0 && line.used > 0) ?? []);
  const made = $derived(new Set(found?.shopping.makes.map((m) => m.key)));
  const shown = (line: ShopLine, value: number) =>
    line.kind === "bread" ? String(Math.round(value)) : amount({ kind: "mass_g", value }, units);
  const money = (value: string) =>
    amount(
      { kind: "money", value: Number(value) },
      { system: units.system, currency: found?.currency_code ?? "" },
    );
  const notes = (line: ShopLine) => [
    line.dishes.length > 0 ? line.dishes.join(", ") : "To what always should be there",
    ...(line.used > 0 && !made.has(line.key) ? [`${shown(line, line.used)} there already`] : []),
    ...(line.instead ? [`“${line.instead}” does not suffice`] : []),
    ...(line.order_by < line.first_day && line.order_by >= today()
      ? [`order by ${dayName(line.order_by)}`]
      : []),
  ];
  const figures = (line: ShopLine) => [
    ...(line.left_over >= 1 ? [`${shown(line, line.left_over)} left over`] : []),
    line.priced ? money(line.cost) : "no price",
  ];
</script>

<svelte:head><title>Shopping · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-16 sm:px-6">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href="/services">All services</a>
    </p>
    <h1 class="mt-2 text-2xl">Shopping</h1>
    <div class="mt-3 flex flex-wrap items-end gap-x-4 gap-y-3">
      <SpanFields {span} label="Served from" onpick={(next) => (days.span = next)} />
      <div class="print:hidden">
        <Segments
          label="In the order of"
          options={[
            { key: "shelf", title: "the shop" },
            { key: "supplier", title: "suppliers" },
          ] as const}
          value={order}
          onpick={(key) => (order = key)}
        />
      </div>
    </div>
    {#if bench?.problem}
      <p role="alert" class="mt-4 text-error">
        {bench?.problem}
        <button class="ml-2 act" onclick={() => void bench?.load()}>Try again</button>
      </p>
    {/if}
    {#if bench}<LineDown old={bench.old} waiting={bench.waiting} />{/if}
    {#if found && bench}
      {@const b = bench}
      {#if found.servings.length === 0}
        <p class="mt-6 max-w-[36rem]">Nothing is served in these days.</p>
        <p class="mt-1 max-w-[36rem] quiet">
          {found.undated === 0
            ? "Give a service a day, or choose other days."
            : found.undated === 1
              ? "One service has no day: give it one, and what it takes stands here."
              : `${found.undated} services have no day: give them one, and what they take stands here.`}
        </p>
      {:else}
        <ul class="mt-4 flex flex-wrap gap-x-6 gap-y-1 text-[0.9375rem]" aria-label="Served in these days">
          {#each found.servings as s, n (n)}
            <li>
              <a
                class="underline decoration-base-300 decoration-2 underline-offset-4"
                href={`/services/${s.service_id}`}>{s.name}</a
              >
              <span class="quiet">{dayName(s.day)}, {s.guests} guests</span>
              {#each s.problems as p (p)}<span class="block text-sm text-error">{p}</span>{/each}
            </li>
          {/each}
        </ul>
        <div class="mt-5 flex flex-wrap items-end gap-x-9 gap-y-3" data-shopping="ready">
          <span class="print:hidden"><Fact label="In the basket">{inBasket} of {all.length}</Fact></span>
          <Fact label="All together">{money(found.shopping.cost)}</Fact>
          {#if found.shopping.unpriced > 0}<Fact label="Without a price">{found.shopping.unpriced}</Fact>{/if}
          <div class="flex gap-2 print:hidden">
            <button class="act text-sm" onclick={() => window.print()}>Print</button>
            <a class="act text-sm" href={api.shoppingCsv(span)} download>Save as CSV</a>
            <a class="act text-sm" href="/butcher">Butcher's slip</a>
          </div>
        </div>
        <div class="gap-x-9 print:columns-2">
          {#each groups as group (group.title)}
            <section class="mt-6 print:mt-4" aria-label={group.title}>
              <h2 class="border-b-2 border-base-content pb-1 text-[0.9375rem] font-semibold">
                {group.title}
              </h2>
              <ul>
                {#each group.lines as line (`${line.kind}/${line.key}`)}
                  {@const done = b.isIn(line)}
                  {@const more = b.moreOf(line)}
                  <li class="flex items-stretch border-b border-base-300">
                    <TickBox
                      label={`${line.name}, in the basket`}
                      {done}
                      onpick={(next) => b.put(line, next)}
                    />
                    <button
                      class="grid min-w-0 grow cursor-pointer grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2 pl-1 text-left hover:bg-paper"
                      onclick={() => (opened = line)}
                    >
                      <span
                        class={["text-[1.0625rem] font-semibold", done && "font-normal quiet line-through"]}
                        >{line.name}</span
                      >
                      <span class={["text-right text-[1.0625rem] numeral", done && "quiet"]}
                        >{line.packs > 0
                          ? `${line.packs} × ${shown(line, line.pack)}`
                          : shown(line, line.bought)}{line.kind === "bread" && line.packs === 0
                          ? " pieces"
                          : ""}</span
                      >
                      <span class="text-sm quiet"
                        >{#if more > 0}<span class="block font-semibold text-error"
                            >{shown(line, more)} more than was in the basket</span
                          >{/if}{notes(line).join(
                          " · ",
                        )}{#if line.order_by < line.first_day && line.order_by < today()}<span
                            class="block text-error"
                            >It was to be ordered by {dayName(line.order_by)}: ask whether it still comes.</span
                          >{/if}</span
                      >
                      <span class="text-right text-sm quiet"
                        >{#if line.about}<Say text={line.about} /> ·
                        {/if}{figures(line).join(" · ")}</span
                      >
                    </button>
                  </li>
                {/each}
              </ul>
            </section>
          {:else}
            <p class="mt-6">Everything is there already.</p>
          {/each}
        </div>
        {#if found.shopping.makes.length > 0}
          <section class="mt-8" aria-label="Made here">
            <h2 class="border-b-2 border-base-content pb-1 text-[0.9375rem] font-semibold">
              Made here, not bought
              <a
                class="ml-3 text-sm font-normal text-primary underline underline-offset-3 print:hidden"
                href="/prep">When to make it</a
              >
            </h2>
            <ul>
              {#each found.shopping.makes as m, n (n)}
                <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5">
                  <span>{m.name}</span>
                  <span class="text-right numeral"><Qty kind="mass_g" value={m.mass_g} /></span>
                  <span class="text-sm quiet"
                    >{m.dishes.length > 0 ? `${m.dishes.join(", ")}, ` : ""}for {dayName(m.day)}; keeps {m.keeps_days ===
                    1
                      ? "1 day"
                      : `${m.keeps_days} days`}</span
                  >
                </li>
              {/each}
            </ul>
          </section>
        {/if}
        {#if there.length > 0}
          <details class="mt-8 print:hidden">
            <summary class="cursor-pointer text-[0.9375rem] font-semibold">There already</summary>
            <ul class="mt-1">
              {#each there as line (`${line.kind}/${line.key}`)}
                <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5">
                  <button
                    class="cursor-pointer text-left underline-offset-4 hover:underline"
                    onclick={() => (opened = line)}>{line.name}</button
                  >
                  <span class="text-right numeral">{shown(line, line.used)}</span>
                  {#each line.lots as lot (lot.key)}
                    <span class="col-span-2 text-sm quiet"
                      ><Qty kind="mass_g" value={lot.mass_g} /> from {lot.name}{lot.use_by
                        ? `, use by ${dayName(lot.use_by)}`
                        : ""}</span
                    >
                  {/each}
                </li>
              {/each}
            </ul>
          </details>
        {/if}
        {#if found.shopping.from_lots.length > 0}
          <section class="mt-8" aria-label="Which lot goes where">
            <h2 class="border-b-2 border-base-content pb-1 text-[0.9375rem] font-semibold">
              Which lot goes where
            </h2>
            <ul>
              {#each found.shopping.from_lots as u, n (n)}
                <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5">
                  <span>{u.dish}, {dayName(u.day)}</span>
                  <span class="text-right numeral"><Qty kind="mass_g" value={u.mass_g} /></span>
                  <span class="text-sm quiet">{u.meat} from {u.lot}</span>
                </li>
              {/each}
            </ul>
            {#each found.shopping.strayed as s, n (n)}
              <p class="mt-2 border-l-4 border-warning pl-3">
                {s.dish}, {dayName(s.day)}: <Qty kind="frac" value={s.fat_frac} /> fat from these lots instead of
                <Qty kind="frac" value={s.wanted_frac} />. Weigh in a leaner or a fatter meat on its bench.
              </p>
            {/each}
            {#each found.shopping.worths as w (w.lot)}
              <p class="mt-1.5 text-sm quiet">
                A kilogram more of {w.lot} would save {money(String(w.per_kg))} of what is bought.
              </p>
            {/each}
          </section>
        {/if}
        <Scarcity {span} />
        {#if found.shopping.unused.length > 0}
          <section class="mt-8" aria-label="Would pass its day">
            <h2 class="border-b-2 border-warning pb-1 text-[0.9375rem] font-semibold">
              Nothing here uses it before its day
            </h2>
            <ul>
              {#each found.shopping.unused as u (u.key)}
                <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5">
                  <span>{u.name}</span><span class="text-right numeral"
                    ><Qty kind="mass_g" value={u.left_g} /></span
                  >
                  <span class="text-sm quiet">use by {dayName(u.use_by)}</span>
                </li>
              {/each}
            </ul>
          </section>
        {/if}
      {/if}
    {:else if !bench?.problem}<p class="mt-5 quiet" aria-busy="true">Adding it up …</p>{/if}
  </main>
</Shell>
{#if opened && bench}
  {@const b = bench}
  <ItemSheet
    line={opened}
    onclose={() => (opened = null)}
    onkeep={async (stocked) => {
      await b.keep(stocked);
      opened = null;
    }}
    onreceived={() => void b.load()}
  />
{/if}
