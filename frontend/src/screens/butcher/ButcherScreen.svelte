<!-- One slip for the butcher over a span of days: every blend with its days, or the cuts alone; to print or to save. -->
<script lang="ts">
  import { api, type SpanButcher } from "../../lib/api/client";
  import { dayName } from "../../lib/days";
  import { shown } from "../../lib/span.svelte";
  import { Told } from "../../lib/told.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import SpanFields, { type Span } from "../../lib/ui/SpanFields.svelte";
  import { units } from "../../lib/units.svelte";

  type Sends = "blends" | "cuts";
  const span = $derived(shown.span);
  let sends = $state<Sends>("blends");
  let supplier = $state("");
  let found = $state.raw<SpanButcher | null>(null);
  const told = new Told();
  const load = (asked: Span, unit_system: typeof units.system) =>
    told.run(async () => void (found = await api.butcher({ ...asked, unit_system })));
  $effect(() => void load(span, units.system));

  const suppliers = $derived([...new Set(found?.slip.cuts.map((c) => c.supplier) ?? [])].sort());
  // A supplier who is not on this slip any more is nobody's choice.
  const whose = $derived(suppliers.includes(supplier) ? supplier : "");
  const cuts = $derived(found?.slip.cuts.filter((c) => whose === "" || c.supplier === whose) ?? []);
  const here = $derived(found?.slip.blends.filter((o) => o.blend.ground_here).length ?? 0);
  const pieces = (n: number) => (n === 1 ? "1 piece" : `${n} pieces`);
</script>

{#snippet spec(label: string)}<dt class="text-[0.8125rem] quiet">{label}</dt>{/snippet}

<svelte:head><title>Butcher's slip · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-6 pb-16 sm:px-6 print:p-0">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href="/shopping">Shopping</a>
    </p>
    <h1 class="mt-2 text-2xl print:hidden">Butcher's slip</h1>
    <p class="mt-1 max-w-[40rem] quiet print:hidden">
      Every blend of these days on one page, for whoever cuts, grinds and portions it; or the cuts alone.
    </p>
    <div class="mt-3 flex flex-wrap items-end gap-x-4 gap-y-3 print:hidden">
      <SpanFields {span} label="Served from" onpick={(next) => (shown.span = next)} />
      <Segments
        label="The butcher sends"
        options={[
          { key: "blends", title: "ground blends" },
          { key: "cuts", title: "cuts" },
        ] as const}
        value={sends}
        onpick={(key) => (sends = key)}
      />
      {#if sends === "cuts" && suppliers.length > 1}
        <label class="block text-[0.8125rem] quiet"
          >Supplier<select
            class="mt-0.5 block h-[2.625rem] rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base text-base-content"
            value={whose}
            onchange={(e) => (supplier = e.currentTarget.value)}
          >
            <option value="">All</option>
            {#each suppliers.filter(Boolean) as name (name)}<option value={name}>{name}</option>{/each}
          </select></label
        >
      {/if}
    </div>
    {#if told.problem}
      <p role="alert" class="mt-4 text-error">
        {told.problem}
        <button class="ml-2 act" onclick={() => void load(span, units.system)}>Try again</button>
      </p>
    {:else if found}
      {@const slip = found.slip}
      {#if slip.blends.length === 0}
        <p class="mt-6 max-w-[36rem]">
          {found.servings.length === 0
            ? "Nothing is served in these days."
            : "No dish of these days has meat in it."}
        </p>
        <p class="mt-1 max-w-[36rem] quiet">
          {found.servings.length === 0
            ? "Give a service a day, or choose other days."
            : "Choose meats on the bench of a formula, and its blend stands here."}
        </p>
      {:else}
        <div class="mt-5 flex flex-wrap items-end gap-x-9 gap-y-3 print:hidden" data-butcher="ready">
          <Fact label={slip.blends.length === 1 ? "1 blend" : `${slip.blends.length} blends`}
            ><Qty kind="mass_g" value={slip.mass_g} /></Fact
          >
          {#if slip.pieces > 0}<Fact label="Pieces, if portioned">{slip.pieces}</Fact>{/if}
          <div class="flex gap-2">
            <button class="act-main text-sm" onclick={() => window.print()}>Print</button>
            <a class="act text-sm" href={api.butcherCsv(span)} download>Save as CSV</a>
          </div>
        </div>
        {#if sends === "blends" && here > 0}
          <p class="mt-3 max-w-[44rem] quiet print:hidden">
            This kitchen grinds {here === slip.blends.length ? "these blends" : `${here} of these blends`} itself:
            choose “cuts” to order the meat whole.
          </p>
        {/if}
        {#each found.servings.filter((s) => s.problems.length > 0) as s, n (n)}
          <p role="alert" class="mt-3 text-error">
            {s.name}, {dayName(s.day)}: {s.problems.join(" ")} It is not on this slip.
          </p>
        {/each}
        <article
          class="mt-6 bg-paper p-5 shadow-sm sm:p-8 print:mt-0 print:bg-white print:p-0 print:shadow-none"
        >
          <header class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
            <div>
              <p class="text-[0.8125rem] quiet">
                {sends === "blends" ? "Ground blends" : "Cuts"} for {found.kitchen}{whose
                  ? `, from ${whose}`
                  : ""}
              </p>
              <h2 class="text-[1.5rem] leading-tight font-semibold">
                {dayName(span.from_day)} to {dayName(span.to_day)}
              </h2>
            </div>
          </header>
          {#if sends === "blends"}
            {#each slip.blends as order (order.blend.key)}
              {@const b = order.blend}
              <section class="mt-6 break-inside-avoid" aria-label={b.name}>
                <h3
                  class="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-base-content pb-1 text-[1.1875rem] font-semibold"
                >
                  <span>{b.name}</span>
                  <span class="numeral"><Qty kind="mass_g" value={b.mass_g} /></span>
                </h3>
                <div class="mt-3 grid gap-x-9 gap-y-4 sm:grid-cols-2 print:grid-cols-2">
                  <div>
                    <table class="w-full" aria-label={`${b.name}: days`}>
                      <thead>
                        <tr class="text-left text-[0.8125rem] quiet">
                          <th class="py-1 font-normal">Cooked on</th>
                          <th class="px-2 text-right font-normal">Blend</th>
                          {#if b.portioned}<th class="text-right font-normal">Pieces</th>{/if}
                        </tr>
                      </thead>
                      <tbody>
                        {#each order.days as d (d.day)}
                          <tr class="border-t border-base-300">
                            <td class="py-1.5"
                              ><span class="font-semibold">{dayName(d.day)}</span>
                              <span class="block text-sm quiet">ground {dayName(d.comes_on)} or that day</span
                              ></td
                            >
                            <td class="px-2 py-1.5 text-right align-top numeral"
                              ><Qty kind="mass_g" value={d.mass_g} /></td
                            >
                            {#if b.portioned}<td class="py-1.5 text-right align-top numeral">{d.pieces}</td
                              >{/if}
                          </tr>
                        {/each}
                      </tbody>
                    </table>
                    {#if order.days.length > 1}
                      <p class="mt-1 border-t border-base-300 pt-1.5 text-sm quiet">
                        <Qty kind="mass_g" value={order.week_mass_g} /> a week at this rate
                      </p>
                    {/if}
                  </div>
                  <div>
                    <table class="w-full" aria-label={`${b.name}: cuts`}>
                      <thead>
                        <tr class="text-left text-[0.8125rem] quiet">
                          <th class="py-1 font-normal">Cut, trimmed of bone and silverskin</th>
                          <th class="px-2 text-right font-normal whitespace-nowrap">Share</th>
                          <th class="text-right font-normal">In all</th>
                        </tr>
                      </thead>
                      <tbody>
                        {#each b.cuts as cut (cut.meat)}
                          <tr class="border-t border-base-300">
                            <td class="py-1.5 font-semibold">{cut.name}</td>
                            <td class="px-2 text-right numeral"
                              ><Qty kind="fine_frac" value={cut.share_frac} /></td
                            >
                            <td class="text-right numeral"><Qty kind="mass_g" value={cut.trimmed_g} /></td>
                          </tr>
                        {/each}
                      </tbody>
                    </table>
                  </div>
                </div>
                <dl class="mt-3 grid gap-x-9 gap-y-2 sm:grid-cols-2 print:grid-cols-2">
                  <div>
                    {@render spec("Grind")}
                    <dd class="font-semibold">
                      {#if b.plate_mm > 0}<Qty kind="length_mm" value={b.plate_mm} /> plate, {b.passes === 2
                          ? "twice, chilled between"
                          : "once"}{:else}as it comes{/if}
                    </dd>
                  </div>
                  <div>
                    {@render spec("Lean to fat wanted")}
                    <dd class="font-semibold"><Qty kind="lean_to_fat" value={b.fat_frac} /> by mass</dd>
                  </div>
                  <div>
                    {@render spec("Taken in at")}
                    <dd class="font-semibold">
                      <Qty kind="frac" value={b.fat_band_frac[0]} high={b.fat_band_frac[1]} /> fat, at most
                      <Qty kind="temp_c" value={order.most_c} />
                    </dd>
                    <dd class="text-sm quiet">
                      these cuts give <Qty kind="frac" value={b.fat_low_frac} high={b.fat_high_frac} /> nine times
                      in ten; {order.source}
                    </dd>
                  </div>
                  <div>
                    {@render spec("On the label")}
                    <dd class="font-semibold">{b.label_name || "no protected name"}</dd>
                  </div>
                  {#if b.portioned}<div>
                      {@render spec("If portioned")}
                      <dd class="font-semibold">
                        {pieces(b.pieces)} of <Qty kind="mass_g" value={b.piece_mass_g} />, ±
                        <Qty kind="mass_g" value={b.piece_tolerance_g} />
                      </dd>
                    </div>{/if}
                </dl>
              </section>
            {/each}
            <p class="mt-6 border-t border-base-300 pt-3 text-[0.875rem]">
              Mix the cubes before grinding and hold at <Qty kind="temp_c" value={0} high={4} />. Date ground,
              use-by and the lot of each cut on every box. No water, salt, binder or extender; the cuts as
              named, so that the ratio holds. A sample of
              <Qty kind="mass_g" value={slip.sample_g} /> is cooked out and weighed from each delivery. Local rules
              on names, dates and temperatures apply.
            </p>
          {:else}
            <table class="mt-4 w-full" aria-label="Cuts">
              <thead>
                <tr class="border-b border-base-300 text-left text-[0.8125rem] quiet">
                  <th class="py-1 font-normal">Cut</th>
                  <th class="px-2 text-right font-normal max-sm:hidden">Trimmed</th>
                  <th class="px-2 text-right font-normal">As bought</th>
                  <th class="px-2 text-right font-normal">There</th>
                  <th class="pl-2 text-right font-normal">To come</th>
                </tr>
              </thead>
              <tbody>
                {#each cuts as cut (cut.meat)}
                  <tr class="border-b border-base-300 align-top">
                    <td class="py-2"
                      ><span class="text-[1.0625rem] font-semibold">{cut.name}</span>
                      <span class="block text-sm quiet"
                        >by {dayName(cut.first_day)}{cut.order_by < cut.first_day
                          ? `, ordered by ${dayName(cut.order_by)}`
                          : ""}{cut.supplier && !whose ? ` · ${cut.supplier}` : ""} · at most
                        <Qty kind="temp_c" value={cut.most_c} /></span
                      ></td
                    >
                    <td class="px-2 py-2 text-right numeral max-sm:hidden"
                      ><Qty kind="mass_g" value={cut.trimmed_g} /></td
                    >
                    <td class="px-2 py-2 text-right numeral"><Qty kind="mass_g" value={cut.needed_g} /></td>
                    <td class="px-2 py-2 text-right numeral"
                      >{#if cut.there_g >= 1}<Qty kind="mass_g" value={cut.there_g} />{:else}–{/if}</td
                    >
                    <td class="py-2 pl-2 text-right text-[1.0625rem] numeral font-semibold"
                      >{#if cut.order_g < 1}none{:else if cut.packs > 0}{cut.packs} ×
                        <Qty kind="mass_g" value={cut.pack_g} />{:else}<Qty
                          kind="mass_g"
                          value={cut.order_g}
                        />{/if}</td
                    >
                  </tr>
                {/each}
              </tbody>
            </table>
            <p class="mt-6 border-t border-base-300 pt-3 text-[0.875rem]">
              Trimmed is without bone and silverskin, as it goes into the grinder. The cuts as named; use-by
              and lot on every pack. Local rules on names, dates and temperatures apply.
            </p>
          {/if}
        </article>
      {/if}
    {:else}<p class="mt-5 quiet" aria-busy="true">Adding it up …</p>{/if}
  </main>
</Shell>
