<!-- A service set out: every dish by station, to be weighed and ticked, and the labels of what is made ahead. -->
<script lang="ts">
  import { api, type SetOut } from "../../lib/api/client";
  import { amount, today } from "../../lib/format";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { TickedList } from "../../lib/tickedList.svelte";
  import LineDown from "../../lib/ui/LineDown.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import { dayName } from "../../lib/days";

  const id = $derived(Number(route.params.id));
  let list = $state.raw<TickedList<SetOut> | null>(null);
  $effect(() => {
    const [service_id, system, kitchen] = [id, units.system, String(kitchens.here)];
    const now = new TickedList<SetOut>({
      kitchen,
      key: `vianda.set-out.${kitchen}.${service_id}`,
      fetch: () => api.setOut(service_id, today(), system),
    });
    list = now;
    void now.load();
    return () => now.close();
  });
  const found = $derived(list?.found ?? null);
  const portions = $derived(found?.dishes.flatMap((d) => d.bowls.flatMap((b) => b.portions)) ?? []);
  const done = $derived(found ? portions.filter((p) => list?.has(found.sheet, p.line)).length : 0);
  type Portion = SetOut["dishes"][number]["bowls"][number]["portions"][number];
  const shown = (p: Portion) =>
    p.kind === "bread"
      ? `${Math.round(p.amount)} pieces`
      : amount({ kind: "mass_g", value: p.amount }, units);
</script>

<svelte:head><title>Set out · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p class="print:hidden">
      <a class="text-primary underline underline-offset-3" href={`/services/${id}`}>The service</a>
    </p>
    <h1 class="mt-2 text-2xl">{found ? `${found.name}, set out` : "Set out"}</h1>
    {#if list?.problem}
      <p role="alert" class="mt-4 text-error">
        {list.problem}
        <button class="ml-2 act" onclick={() => void list?.load()}>Try again</button>
      </p>
    {/if}
    {#if list}<LineDown old={list.old} waiting={list.waiting} />{/if}
    {#if found && list}
      {@const marks = list}
      {@const sheet = found.sheet}
      <div class="mt-1 flex flex-wrap items-center gap-4">
        <p class="quiet">
          {dayName(found.day)}: weighed, in bowls, and cold before the first piece is cooked.
        </p>
        {#if portions.length > 0}<p class="numeral print:hidden">{done} of {portions.length} done</p>{/if}
        <button class="act text-sm print:hidden" onclick={() => window.print()}>Print</button>
      </div>
      {#each found.problems as problem (problem)}<p role="alert" class="mt-2 text-error">{problem}</p>{/each}
      {#if found.dishes.length === 0}<p class="mt-5">No dish yet: choose one in the service.</p>{/if}
      {#each found.dishes as dish, n (n)}
        <section class="mt-7" aria-label={dish.dish}>
          <h2 class="border-b-2 border-base-content pb-1 text-lg font-semibold">
            {dish.dish}
            <span class="ml-2 text-[0.9375rem] font-normal quiet"
              >{dish.guests} guests, {dish.pieces}
              {dish.pieces === 1 ? "piece" : "pieces"} of <Qty kind="mass_g" value={dish.piece_g} /></span
            >
          </h2>
          <div class="mt-3 grid gap-x-9 gap-y-5 sm:grid-cols-2 lg:grid-cols-3 print:grid-cols-3">
            {#each dish.bowls as bowl (bowl.station)}
              <div class="break-inside-avoid">
                <h3 class="text-[0.9375rem] font-semibold">{bowl.title}</h3>
                <ul class="mt-1" aria-label={`${dish.dish}: ${bowl.title}`}>
                  {#each bowl.portions as p (p.line)}
                    {@const more = marks.more(sheet, p.line)}
                    <li class="border-t border-base-300">
                      <label class="flex min-h-11 cursor-pointer items-center gap-3"
                        ><input
                          type="checkbox"
                          class="size-5 shrink-0 accent-[var(--color-primary)]"
                          checked={marks.has(sheet, p.line)}
                          onchange={(e) => marks.tick(sheet, p.line, p.amount, e.currentTarget.checked)}
                        /><span class="min-w-0 grow"
                          >{p.name}{#if p.note}<span class="block text-sm quiet">{p.note}</span
                            >{/if}{#if more > 0}<span class="block text-sm font-semibold text-error"
                              >{shown({ ...p, amount: more })} more than was weighed</span
                            >{/if}</span
                        ><span class="numeral whitespace-nowrap">{shown(p)}</span></label
                      >
                    </li>
                  {/each}
                </ul>
              </div>
            {/each}
          </div>
        </section>
      {/each}
      {#if found.labels.length > 0}
        <section class="mt-9" aria-label="Labels">
          <h2 class="text-lg font-semibold">
            Labels of what is made ahead
            <a
              class="ml-3 text-[0.9375rem] font-normal text-primary underline underline-offset-3 print:hidden"
              href={`/services/${id}/labels`}>Print on labels</a
            >
          </h2>
          <ul class="mt-2 grid gap-3 sm:grid-cols-2 lg:grid-cols-3 print:grid-cols-3">
            {#each found.labels as label (label.lot)}
              <li
                class="break-inside-avoid rounded-[0.25rem] border border-[#8b8f8a] bg-paper p-3 leading-snug"
              >
                <span class="block text-[1.0625rem] font-semibold">{label.name}</span>
                <span class="block"
                  >Made {dayName(label.made)}, <Qty kind="mass_g" value={label.mass_g} /></span
                >
                <span class="block font-semibold">Use by {dayName(label.use_by)}</span>
                <span class="block text-sm numeral">Lot {label.lot}</span>
                {#if label.from_lots.length > 0}<span class="block text-sm"
                    >Meat: {label.from_lots.join(", ")}</span
                  >{/if}
                <span class="block text-sm"
                  >{label.allergens.length > 0
                    ? `Holds ${label.allergens.join(", ")}`
                    : "No allergen declared"}</span
                >
              </li>
            {/each}
          </ul>
        </section>
      {/if}
    {:else if !list?.problem}<p class="mt-5 quiet" aria-busy="true">Setting it out …</p>{/if}
  </main>
</Shell>
