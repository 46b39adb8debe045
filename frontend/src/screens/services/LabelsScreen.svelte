<!-- Labels for the containers of what a service makes ahead: which sheet, from which place, into how many containers. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type Labels, type LabelsRequest } from "../../lib/api/client";
  import { today } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { route } from "../../router";
  import ContainerLabel from "./ContainerLabel.svelte";

  const KEY = "vianda.labels.sheet";
  const id = $derived(Number(route.params.id));
  let sheet = $state(localStorage.getItem(KEY) ?? "a4-21");
  const asked = new Resource<LabelsRequest, Labels>((now, signal) => api.labels(now, signal));
  let typed = $state("1");
  const places = $derived.by(() => {
    const s = asked.value?.sheets.find((one) => one.key === sheet);
    return s ? s.columns * s.rows : 300;
  });
  const first = $derived(/^\d{1,3}$/.test(typed) && +typed >= 1 && +typed <= places ? +typed : null);
  let containers = $state<Record<string, number>>({});
  const question = $derived<LabelsRequest>({
    service_id: id,
    today: today(),
    sheet,
    first: first ?? 1,
    containers,
  });
  $effect(() => asked.ask(question));
  onDestroy(() => asked.clear());
  const found = $derived(asked.value?.found ?? null);
  let tooMuch = $state<Record<string, boolean>>({});
  const crowded = $derived(
    found?.printed.filter((p) => tooMuch[`${p.label.lot}/${p.number}`]).map((p) => p.label.name) ?? [],
  );
  const pages = $derived(Array.from({ length: found?.pages ?? 0 }, (_, n) => n));
  const countOf = (lot: string) => containers[lot] ?? 1;

  // The size of the page is the sheet's own, and nothing but labels is on it.
  const page = new CSSStyleSheet();
  $effect(() => {
    if (!found) return;
    const { page_width_mm, page_height_mm } = found.sheet;
    page.replaceSync(
      `@page { size: ${page_width_mm}mm ${page_height_mm}mm; margin: 0; @bottom-right { content: none; } }
       @media print { html { font-size: 16px; } }`,
    );
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, page];
    return () => (document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== page));
  });
  function chooseSheet(key: string): void {
    sheet = key;
    typed = "1";
    localStorage.setItem(KEY, key);
  }
</script>

<svelte:head><title>Labels · Vianda</title></svelte:head>
<Shell here="Shelf" bare>
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-6 pb-12 sm:px-6">
    <div class="print:hidden">
      <p>
        <a class="text-primary underline underline-offset-3" href={`/services/${id}/set-out`}>Set out</a>
      </p>
      <h1 class="mt-2 text-2xl">{found ? `${found.name}, labels` : "Labels"}</h1>
      {#if asked.problem}<p role="alert" class="mt-4 text-error">{asked.problem.detail}</p>{/if}
      {#if found}
        <div
          class="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3"
          data-labels={asked.busy ? "asking" : "ready"}
        >
          <PickField
            label="Printed on"
            width="16rem"
            value={sheet}
            options={asked.value?.sheets.map((s) => ({ key: s.key, title: s.title })) ?? []}
            onpick={chooseSheet}
          />
          {#if places > 1}
            <TextField
              label="First free label"
              value={typed}
              width="7rem"
              refused={first === null ? `A page has labels 1 to ${places}.` : null}
              oninput={(text) => (typed = text)}
            />
          {/if}
          <button class="act-main" onclick={() => window.print()} disabled={found.printed.length === 0}
            >Print {found.printed.length} {found.printed.length === 1 ? "label" : "labels"}</button
          >
        </div>
        {#if crowded.length > 0}
          <p role="alert" class="mt-3 max-w-2xl border-l-4 border-warning pl-3">
            More stands on {[...new Set(crowded)].join(", ")} than fits on this size. Choose a larger label: what
            is cut off may be an allergen.
          </p>
        {/if}
        <h2 class="mt-6 border-b-2 border-base-content pb-1 text-[1.0625rem]">Containers</h2>
        <ul>
          {#each found.kinds as label (label.lot)}
            <li class="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-base-300 py-1.5">
              <span class="min-w-0 grow"
                ><span class="font-semibold">{label.name}</span>
                <span class="quiet"><Qty kind="mass_g" value={label.mass_g} /></span></span
              >
              <span class="flex items-center gap-1">
                <button
                  class="act w-11"
                  aria-label={`One container less of ${label.name}`}
                  disabled={countOf(label.lot) === 0}
                  onclick={() => (containers = { ...containers, [label.lot]: countOf(label.lot) - 1 })}
                  >−</button
                >
                <span class="w-9 text-center text-lg numeral" aria-label={`Containers of ${label.name}`}
                  >{countOf(label.lot)}</span
                >
                <button
                  class="act w-11"
                  aria-label={`One container more of ${label.name}`}
                  onclick={() => (containers = { ...containers, [label.lot]: countOf(label.lot) + 1 })}
                  >+</button
                >
              </span>
            </li>
          {:else}
            <li class="py-3 quiet">Nothing of this service is made ahead.</li>
          {/each}
        </ul>
        <p class="mt-3 max-w-2xl text-[0.875rem] quiet">
          Print at full size, without margins added by the printer. Names and allergens follow what is written
          down of the meats and ingredients: compare them with their packs, and with your own rules for what a
          label must say.
        </p>
      {:else if !asked.problem}<p class="mt-5 quiet" aria-busy="true">Laying them out …</p>{/if}
    </div>
    {#if found}
      <div class="mt-6 overflow-x-auto print:m-0 print:overflow-visible">
        {#each pages as n (n)}
          <ol
            aria-label={`Page ${n + 1}`}
            class="relative mb-6 [break-after:page] bg-white shadow-sm last:[break-after:auto] print:mb-0 print:shadow-none"
            style:width={`${found.sheet.page_width_mm}mm`}
            style:height={`${found.sheet.page_height_mm - 0.2}mm`}
          >
            {#each found.printed.filter((p) => p.page === n) as printed (`${printed.label.lot}/${printed.number}`)}
              <ContainerLabel
                {printed}
                kitchen={found.kitchen}
                sheet={found.sheet}
                type_pt={found.type_pt}
                onmeasured={(fits) => {
                  const key = `${printed.label.lot}/${printed.number}`;
                  if ((tooMuch[key] ?? false) === fits) tooMuch = { ...tooMuch, [key]: !fits };
                }}
              />
            {/each}
          </ol>
        {/each}
      </div>
    {/if}
  </main>
</Shell>
