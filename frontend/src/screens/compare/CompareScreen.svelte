<!-- Two versions side by side: what differs, what is forecast, what came of them; and a blind tasting of both. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Comparison, type Tasting, type Version } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import { route } from "../../router";
  import SetUpTasting from "./SetUpTasting.svelte";
  import { KINDS } from "./tastings";

  const id = $derived(Number(route.params.id));
  let picked = $state<{ before: number; after: number } | null>(null);
  type Known = { versions: Version[]; tastings: Tasting[] };
  const known = new Resource<number, Known>(async (formula) => {
    const [versions, tastings] = await Promise.all([api.versions(formula), api.tastings(formula)]);
    return { versions, tastings };
  });
  $effect(() => known.ask(id));
  const versions = $derived(known.value?.versions ?? []);
  // The newest kept one beside what stands now.
  const pair = $derived(picked ?? (versions[0] ? { before: versions[0].number, after: 0 } : null));
  const options = $derived([
    { key: "0", title: "As it stands" },
    ...versions.map((v) => ({ key: String(v.number), title: `${v.number} ${v.name}` })),
  ]);
  type Asked = { id: number; before: number; after: number };
  const asked = new Resource<Asked, Comparison>((a, signal) =>
    api.compareVersions(a.id, a.before, a.after, units.system, signal),
  );
  $effect(() => {
    if (pair) asked.ask({ id, ...pair });
  });
  onDestroy(() => {
    known.clear();
    asked.clear();
  });
  const found = $derived(asked.value);
  const changes = $derived(found?.differences.length ?? 0);
  const UNITS: Record<string, "frac" | "length_mm"> = { yield: "frac", shrink: "frac", thick: "length_mm" };
  const kindOf = (key: string) => UNITS[key] ?? "number";
</script>

<svelte:head><title>Compare versions · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <p>
      <a class="text-primary underline underline-offset-3" href={`/formula/${id}/notes`}
        >{found?.formula_name ?? "The formula"}</a
      >
    </p>
    <h1 class="mt-2 border-b-2 border-base-content pb-2 text-2xl">Compare versions</h1>
    {#if known.problem}<p role="alert" class="mt-3 text-error">{known.problem.detail}</p>
    {:else if !known.value}<p class="mt-3 quiet" aria-busy="true">Looking for versions …</p>
    {:else if !pair}
      <p class="mt-4 max-w-[40rem]">No version is kept yet, so there is nothing to compare with.</p>
      <p class="mt-1 max-w-[40rem] quiet">
        Keep the formula as it stands in step 9, change one thing, and come back.
      </p>
    {:else}
      <div class="mt-4 flex flex-wrap items-end gap-3">
        <PickField
          label="Before"
          value={String(pair.before)}
          {options}
          onpick={(key) => (picked = { ...pair, before: Number(key) })}
        />
        <PickField
          label="After"
          value={String(pair.after)}
          {options}
          onpick={(key) => (picked = { ...pair, after: Number(key) })}
        />
        <button
          class="act h-[2.625rem] text-sm"
          onclick={() => (picked = { before: pair.after, after: pair.before })}>Swap</button
        >
      </div>
      {#if asked.problem}<p role="alert" class="mt-3 text-error">{asked.problem.detail}</p>{/if}
      {#if found}
        <section class="mt-6" aria-labelledby="differs" data-compare={asked.busy ? "asking" : "ready"}>
          <h2 id="differs" class="border-b border-base-content pb-1 text-lg">What differs</h2>
          <p class={["mt-1 text-[0.9375rem]", changes > 1 ? "text-warning" : "quiet"]}>
            {#if changes === 0}Nothing that decides how it comes out.
            {:else if changes === 1}One change: what comes of it can be put down to it.
            {:else}{changes} changes at once: what comes of them cannot be told apart.{/if}
          </p>
          {#if changes > 0}
            <table class="mt-1 w-full max-w-[46rem]">
              <thead class="sr-only">
                <tr><th>Step</th><th>What</th><th>{found.before.name}</th><th>{found.after.name}</th></tr>
              </thead>
              <tbody>
                {#each found.differences as row, n (n)}
                  <tr class="border-b border-base-300">
                    <td class="w-16 py-1.5 pr-4 text-[0.8125rem] quiet">{row.step}</td>
                    <td class="py-1.5 pr-4">{row.what}</td>
                    <td class="py-1.5 pr-4 text-right numeral quiet"><Say text={row.before} /></td>
                    <td class="py-1.5 text-right numeral"><Say text={row.after} /></td>
                  </tr>
                {/each}
              </tbody>
            </table>
          {/if}
        </section>
        <div class="grid gap-x-10 md:grid-cols-2">
          <section class="mt-7" aria-labelledby="forecast">
            <h2 id="forecast" class="border-b border-base-content pb-1 text-lg">Forecast</h2>
            {#each [found.before, found.after] as side (side.number)}
              {#if side.problem}<p class="mt-1 text-error">{side.name}: {side.problem}</p>{/if}
            {/each}
            {#if found.before.ticket.length > 0 && found.after.ticket.length > 0}
              <table class="mt-1 w-full">
                <thead class="text-[0.75rem] quiet">
                  <tr
                    ><th class="py-1 text-left font-normal">Figure</th>
                    <th class="py-1 pr-3 text-right font-normal">{found.before.name}</th>
                    <th class="py-1 text-right font-normal">{found.after.name}</th></tr
                  >
                </thead>
                <tbody>
                  {#each found.before.ticket as figure, n (figure.id)}
                    {@const other = found.after.ticket[n]}
                    <tr class="border-t border-base-300">
                      <th scope="row" class="py-1.5 pr-3 text-left font-normal">{figure.label}</th>
                      <td class="py-1.5 pr-3 text-right numeral"><Say text={figure.value} /></td>
                      <td class="py-1.5 text-right numeral"
                        >{#if other}<Say text={other.value} />{/if}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            {/if}
          </section>
          <section class="mt-7" aria-labelledby="happened">
            <h2 id="happened" class="border-b border-base-content pb-1 text-lg">What happened</h2>
            <p class="mt-1 text-[0.875rem] quiet">
              {found.before.name}: {found.before.cooks.length}
              {found.before.cooks.length === 1 ? "cook" : "cooks"}; {found.after.name}: {found.after.cooks
                .length}.
            </p>
            {#if found.before.photographs.length > 0 || found.after.photographs.length > 0}
              <div class="mt-2 grid grid-cols-2 gap-x-4">
                {#each [found.before, found.after] as side (side.number)}
                  <div>
                    <h3 class="text-[0.8125rem] font-normal quiet">{side.name}</h3>
                    <ul class="mt-1 grid grid-cols-2 gap-1.5" aria-label={`Photographs of ${side.name}`}>
                      {#each side.photographs as photograph (photograph.id)}
                        <li>
                          <a href={`/log/${photograph.cook_id}`} class="block"
                            ><img
                              src={api.photographPath(photograph.id, "small")}
                              alt={photograph.caption || `Cook ${photograph.cook_id} of ${side.name}`}
                              class="aspect-[4/3] w-full rounded-[0.25rem] border border-base-300 object-cover"
                            /></a
                          >
                        </li>
                      {/each}
                    </ul>
                  </div>
                {/each}
              </div>
            {/if}
            {#if found.figures.length === 0}
              <p class="mt-1">No finished cook of either was weighed or scored.</p>
            {:else}
              <table class="mt-1 w-full">
                <thead class="text-[0.75rem] quiet">
                  <tr
                    ><th class="py-1 text-left font-normal">Mean of</th>
                    <th class="py-1 pr-3 text-right font-normal whitespace-nowrap">Before</th>
                    <th class="py-1 pr-3 text-right font-normal whitespace-nowrap">After</th>
                    <th class="py-1 text-right font-normal">Difference, 95 in 100</th></tr
                  >
                </thead>
                <tbody>
                  {#each found.figures as row (row.key)}
                    {@const kind = kindOf(row.key)}
                    <tr class="border-t border-base-300">
                      <th scope="row" class="py-1.5 pr-3 text-left font-normal">{row.title}</th>
                      <td class="pr-3 text-right numeral"
                        >{#if row.before != null}<Qty {kind} value={row.before} />{:else}–{/if}</td
                      >
                      <td class="pr-3 text-right numeral"
                        >{#if row.after != null}<Qty {kind} value={row.after} />{:else}–{/if}</td
                      >
                      <td class="py-1.5 text-right"
                        >{#if row.range_of && row.range_of.low < row.range_of.high}<span class="numeral"
                            ><Qty {kind} value={row.range_of.low} /> to <Qty
                              {kind}
                              value={row.range_of.high}
                            /></span
                          >
                        {/if}<span class="block text-[0.8125rem] quiet"><Say text={row.says} /></span></td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            {/if}
          </section>
        </div>
      {/if}
      <section class="mt-8" aria-labelledby="blind">
        <h2 id="blind" class="border-b border-base-content pb-1 text-lg">Taste them blind</h2>
        <SetUpTasting {id} {pair} {options} />
        {#if known.value.tastings.length > 0}
          <h3 class="mt-5 text-base">Tastings of this formula</h3>
          <ul class="mt-1" aria-label="Tastings">
            {#each known.value.tastings as one (one.id)}
              <li class="border-b border-base-300">
                <a
                  class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-5 gap-y-0.5 py-2 hover:bg-paper sm:grid-cols-[8rem_7rem_minmax(0,1fr)]"
                  href={`/tastings/${one.id}`}
                >
                  <span class="quiet narrow">{moment(one.created_at)}</span>
                  <span class="font-semibold">{KINDS[one.tasting.kind].title}</span>
                  <span class="max-sm:col-span-2"
                    >{#if one.result}<Say text={one.result.verdict.says} />{:else}<span class="quiet"
                        >{one.tasting.tasters} tasters, not answered yet</span
                      >{/if}</span
                  >
                </a>
              </li>
            {/each}
          </ul>
        {/if}
      </section>
    {/if}
  </main>
</Shell>
