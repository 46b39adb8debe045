<!-- What to buy for everything that is served in a span of days; checked off in the shop. -->
<script lang="ts">
  import Check from "@lucide/svelte/icons/check";
  import { api, type ShopLine } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import SpanFields, { type Span } from "../../lib/ui/SpanFields.svelte";
  import { units } from "../../lib/units.svelte";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { dayAfter, dayName } from "../../lib/days";
  import ItemSheet from "./ItemSheet.svelte";
  import { grouped, type Order } from "./groups";
  import Scarcity from "./Scarcity.svelte";
  import { ShoppingBench } from "./shopping.svelte";

  let span = $state.raw<Span>({ from_day: today(), to_day: dayAfter(today(), 6) });
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
  const inBasket = $derived(bench ? all.filter((line) => bench?.has(line)).length : 0);
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
      <SpanFields {span} label="Served from" onpick={(next) => (span = next)} />
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
    {#if bench?.old}
      <p role="status" class="mt-4 border-l-4 border-warning pl-3">
        The line is down. This is the list as it was fetched last; what you tick is kept here and sent later.
      </p>
    {:else if bench && bench.outbox.items.length > 0 && bench.outbox.away}
      <p role="status" class="mt-4 border-l-4 border-warning pl-3">
        The line is down. {bench.outbox.items.length === 1
          ? "1 tick waits"
          : `${bench.outbox.items.length} ticks wait`} here and will be sent.
      </p>
    {/if}
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
          <Fact label="In the basket">{inBasket} of {all.length}</Fact>
          <Fact label="All together">{money(found.shopping.cost)}</Fact>
          {#if found.shopping.unpriced > 0}<Fact label="Without a price">{found.shopping.unpriced}</Fact>{/if}
          <div class="flex gap-2 print:hidden">
            <button class="act text-sm" onclick={() => window.print()}>Print</button>
            <a class="act text-sm" href={api.shoppingCsv(span)} download>Save as CSV</a>
          </div>
        </div>
        {#each groups as group (group.title)}
          <section class="mt-6 break-inside-avoid" aria-label={group.title}>
            <h2 class="border-b-2 border-base-content pb-1 text-[0.9375rem] font-semibold">{group.title}</h2>
            <ul>
              {#each group.lines as line (`${line.kind}/${line.key}`)}
                {@const done = b.has(line)}
                <li class="flex items-stretch border-b border-base-300">
                  <button
                    role="checkbox"
                    aria-checked={done}
                    aria-label={`${line.name}, in the basket`}
                    class="grid w-12 shrink-0 cursor-pointer place-items-center rounded hover:bg-base-200"
                    onclick={() => b.tick(line, !done)}
                    ><span
                      class={[
                        "grid size-6 place-items-center rounded-[0.2rem] border-2",
                        done ? "border-primary bg-primary text-primary-content" : "border-[#6d726c] bg-paper",
                      ]}
                      >{#if done}<Check size={18} strokeWidth={3} aria-hidden="true" />{/if}</span
                    ></button
                  >
                  <button
                    class="grid min-w-0 grow cursor-pointer grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2 pl-1 text-left hover:bg-paper"
                    onclick={() => (opened = line)}
                  >
                    <span class={["text-[1.0625rem] font-semibold", done && "font-normal quiet line-through"]}
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
                      >{notes(line).join(
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
