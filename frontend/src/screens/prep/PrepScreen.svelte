<!-- What to make on which day for everything that is served in a span of days. -->
<script lang="ts">
  import { api, type SpanPrep } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { shown } from "../../lib/span.svelte";
  import { TickedList } from "../../lib/tickedList.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import LineDown from "../../lib/ui/LineDown.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import SpanFields from "../../lib/ui/SpanFields.svelte";
  import TickBox from "../../lib/ui/TickBox.svelte";
  import { units } from "../../lib/units.svelte";

  type Line = SpanPrep["plan"]["days"][number]["lines"][number];
  const span = $derived(shown.span);
  let dayMin = $state(0);
  let list = $state.raw<TickedList<SpanPrep> | null>(null);
  $effect(() => {
    const asked = { ...span, day_min: dayMin, unit_system: units.system };
    const kitchen = String(kitchens.here);
    const now = new TickedList<SpanPrep>({
      kitchen,
      key: `vianda.prep.${kitchen}.${span.from_day}.${span.to_day}.${dayMin}`,
      fetch: () => api.prep(asked),
    });
    list = now;
    void now.load();
    return () => now.close();
  });
  const found = $derived(list?.found ?? null);
  const sheet = (day: string) => `prep/${day}`;

  const count = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`);
  const HANDS = [
    { min: 0, title: "as long as it takes" },
    { min: 60, title: "1 h a day" },
    { min: 120, title: "2 h a day" },
    { min: 240, title: "4 h a day" },
    { min: 480, title: "8 h a day" },
  ];
  const kept = (line: Line, day: string) => [
    ...(line.ready > day ? [`ready ${dayName(line.ready)}`] : []),
    `use by ${dayName(line.use_by)}`,
  ];
</script>

{#snippet stretch(minutes: number)}<Qty kind="minutes" value={minutes} />{/snippet}

<svelte:head><title>Prep plan · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-16 sm:px-6">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href="/services">All services</a>
    </p>
    <h1 class="mt-2 text-2xl">Prep plan</h1>
    <p class="mt-1 max-w-[40rem] quiet print:hidden">
      What is ground, stirred, cooked or put up on which day: as seldom as keeping allows, and with the least
      thrown away.
    </p>
    <div class="mt-3 flex flex-wrap items-end gap-x-4 gap-y-3">
      <SpanFields {span} label="From" onpick={(next) => (shown.span = next)} />
      <label class="block text-[0.8125rem] quiet print:hidden"
        >Hands for prep<select
          class="mt-0.5 block h-[2.625rem] rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base text-base-content"
          value={dayMin}
          onchange={(e) => (dayMin = Number(e.currentTarget.value))}
        >
          {#each HANDS as h (h.min)}<option value={h.min}>{h.title}</option>{/each}
        </select></label
      >
    </div>
    {#if list?.problem}
      <p role="alert" class="mt-4 text-error">
        {list.problem}
        <button class="ml-2 act" onclick={() => void list?.load()}>Try again</button>
      </p>
    {/if}
    {#if list}<LineDown old={list.old} waiting={list.waiting} />{/if}
    {#if found && list}
      {@const marks = list}
      {@const plan = found.plan}
      {#if plan.days.length === 0}
        <p class="mt-6 max-w-[36rem]">
          {found.servings.length === 0
            ? "Nothing is served in these days."
            : "Nothing has to be made ahead in these days."}
        </p>
        <p class="mt-1 max-w-[36rem] quiet">
          {found.servings.length === 0
            ? "Give a service a day, or choose other days."
            : "House sauces, cooked onions and meat that is ground here would stand here."}
        </p>
      {:else}
        <div class="mt-5 flex flex-wrap items-end gap-x-9 gap-y-3" data-prep="ready">
          <Fact label="Hands in all">{@render stretch(plan.minutes)}</Fact>
          <Fact label="Makings">{plan.makings}</Fact>
          {#if plan.apart > plan.makings}
            <Fact label="Made anew each day">{plan.apart} makings, {@render stretch(plan.apart_min)}</Fact>
          {/if}
          {#if plan.spare_g >= 1}<Fact label="Left over"><Qty kind="mass_g" value={plan.spare_g} /></Fact
            >{/if}
          <div class="flex gap-2 print:hidden">
            <button class="act text-sm" onclick={() => window.print()}>Print</button>
            <a class="act text-sm" href={api.prepCsv(span, dayMin)} download>Save as CSV</a>
          </div>
        </div>
        {#each plan.remarks as remark, n (n)}
          <p class="mt-3 max-w-[44rem] border-l-4 border-warning pl-3"><Say text={remark} /></p>
        {/each}
        {#each plan.days as day (day.day)}
          <section class="mt-6 break-inside-avoid" aria-label={dayName(day.day)}>
            <h2
              class="flex items-baseline justify-between gap-4 border-b-2 border-base-content pb-1 text-[1.0625rem] font-semibold"
            >
              <span>{dayName(day.day)}</span>
              <span class="text-[0.9375rem] numeral font-normal quiet">{@render stretch(day.minutes)}</span>
            </h2>
            <ul>
              {#each day.lines as line (line.key)}
                {@const done = marks.has(sheet(day.day), line.key)}
                {@const more = marks.more(sheet(day.day), line.key)}
                <li class="flex items-start border-b border-base-300">
                  <span class="-ml-3"
                    ><TickBox
                      label={`${line.name}, made`}
                      {done}
                      onpick={(next) => marks.tick(sheet(day.day), line.key, line.mass_g, next)}
                    /></span
                  >
                  <div
                    class="grid min-w-0 grow grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2 sm:grid-cols-[7rem_minmax(0,1fr)_auto]"
                  >
                    <span class="text-sm quiet max-sm:col-span-2 sm:row-span-2 sm:pt-1">{line.station}</span>
                    <span class={["text-[1.0625rem] font-semibold", done && "font-normal quiet line-through"]}
                      >{line.name}</span
                    >
                    <span class={["text-right text-[1.0625rem] numeral", done && "quiet"]}
                      >{#if line.batch_g > 0}{line.batches} ×
                        <Qty kind="mass_g" value={line.batch_g} />{:else}<Qty
                          kind="mass_g"
                          value={line.mass_g}
                        />{/if}</span
                    >
                    <span class="text-sm quiet"
                      >{#if more > 0}<span class="block font-semibold text-error"
                          ><Qty kind="mass_g" value={more} /> more than was made</span
                        >{/if}for {#each line.for_days as part, n (part.day)}{n > 0
                          ? n === line.for_days.length - 1
                            ? " and "
                            : ", "
                          : ""}{dayName(part.day)}{#if line.for_days.length > 1}&nbsp;(<Qty
                            kind="mass_g"
                            value={part.mass_g}
                          />){/if}{/each}{line.dishes.length > 0 ? ` · ${line.dishes.join(", ")}` : ""} · {kept(
                        line,
                        day.day,
                      ).join(", ")}{#if line.spare_g >= 1}
                        · <Qty kind="mass_g" value={line.spare_g} /> left over{/if}</span
                    >
                    <span class="text-right text-sm quiet">{@render stretch(line.minutes)}</span>
                  </div>
                </li>
              {/each}
            </ul>
          </section>
        {/each}
        <p class="mt-6 max-w-[40rem] text-sm quiet print:hidden">
          For {count(found.servings.length, "service", "services")}. A batch is the pack that “What is kept of
          it” has on the shopping list. Minutes are common practice; ground meat keeps a day in the cold here.
        </p>
      {/if}
    {:else if !list?.problem}<p class="mt-5 quiet" aria-busy="true">Planning …</p>{/if}
  </main>
</Shell>
