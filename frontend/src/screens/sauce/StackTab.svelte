<!-- The build as a section to scale, from heel to crown; layers are moved by keys and buttons, and each rule is said. -->
<script lang="ts">
  import ArrowDown from "@lucide/svelte/icons/arrow-down";
  import ArrowUp from "@lucide/svelte/icons/arrow-up";
  import GripVertical from "@lucide/svelte/icons/grip-vertical";
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { StackLayer } from "../../lib/api/client";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import type { StepProps } from "../step";
  import BuildPicture from "../../lib/ui/BuildPicture.svelte";

  let { bench, evaluation, catalogue }: StepProps = $props();
  const sheet = $derived(evaluation.beside);
  const build = $derived(sheet.build);
  const sauces = $derived(
    sheet.things
      .filter((t) => ["burger-sauce", "relish", "topping", "glaze", "gravy"].includes(t.role))
      .map((t) => ({ kind: "sauce" as const, title: t.name, ingredient: t.ingredient })),
  );
  const offered = $derived([...sauces, ...catalogue.layers]);
  let chosen = $state("0");
  const set = (layers: StackLayer[]) => bench.edit({ kind: "set-stack", layers });

  function move(at: number, by: number): void {
    const to = at + by;
    if (to < 0 || to >= sheet.stack.length) return;
    const layers = [...sheet.stack];
    const [layer] = layers.splice(at, 1);
    if (layer) layers.splice(to, 0, layer);
    set(layers);
  }

  /** A layer held by its grip, and where it would be laid, both counted from below. */
  let held = $state.raw<{ from: number; to: number } | null>(null);
  let list: HTMLElement | undefined = $state();

  function drag(event: PointerEvent): void {
    if (!held || !list) return;
    const rows = [...list.querySelectorAll("li")];
    const from_top = rows.findIndex((row) => event.clientY < row.getBoundingClientRect().bottom);
    const at = from_top < 0 ? rows.length - 1 : from_top;
    held = { from: held.from, to: rows.length - 1 - at };
  }
  function drop(): void {
    const now = held;
    held = null;
    if (now && now.from !== now.to) move(now.from, now.to - now.from);
  }

  function add(event: SubmitEvent): void {
    event.preventDefault();
    const wanted = offered[Number(chosen)];
    if (!wanted) return;
    const layers = [...sheet.stack];
    // Under the crown, where a hand would lay it.
    const top =
      layers.at(-1)?.kind === "crown" && wanted.kind !== "crown" ? layers.length - 1 : layers.length;
    const bread = wanted.kind === "heel" || wanted.kind === "crown" || wanted.kind === "club";
    layers.splice(top, 0, {
      kind: wanted.kind,
      ingredient: wanted.ingredient,
      mass_g: 0,
      toasted: bread,
    });
    set(layers);
  }
</script>

<div class="mt-4 flex flex-wrap gap-x-8 gap-y-3">
  <Fact label="High"><Qty kind="length_mm" value={build.height_mm} /></Fact>
  <Fact label="A bite"
    ><span class={build.bite === "comfortable" ? "" : "text-warning"}>{build.bite}</span></Fact
  >
  <Fact label="Weighs"><Qty kind="mass_g" value={build.mass_g} /></Fact>
  <Fact label="Over the edge"><Qty kind="length_mm" value={build.overhang_mm} /></Fact>
  <Fact label="Made">{sheet.builds}</Fact>
  {#if sheet.checklist.length > 0}<a class="ml-auto act self-center" href={`/build/${bench.id}`}
      >Build sheet to print</a
    >{/if}
</div>

<div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 md:grid-cols-[minmax(0,1fr)_22rem]">
  <div class="min-w-0">
    <BuildPicture {build} />
    {#if build.tasted}<p class="mt-3 max-w-[26rem] text-[0.875rem] leading-snug quiet">
        <Say text={build.tasted} />
      </p>{/if}
  </div>
  <section aria-label="Layers, from the top">
    <div class="flex items-baseline justify-between gap-3">
      <h2 class="text-base">{build.usual ? "The usual build" : "Your build"}, from the top</h2>
      {#if !build.usual}<button class="act text-sm" onclick={() => set([])}>Back to the usual</button>{/if}
    </div>
    <ol class="mt-1" bind:this={list}>
      {#each [...build.layers.keys()].reverse() as at (at)}
        {@const layer = build.layers[at]}
        {#if layer}
          <li
            class={[
              "flex items-center gap-1.5 border-t py-1",
              held?.from === at && "bg-base-200",
              held && held.to === at && held.from !== at ? "border-t-3 border-primary" : "border-base-300",
            ]}
            data-layer={layer.kind}
          >
            <span
              class="grid h-10 w-7 shrink-0 cursor-grab touch-none place-items-center text-quiet active:cursor-grabbing"
              aria-hidden="true"
              title="Drag it to its place"
              data-grip
              onpointerdown={(e) => {
                held = { from: at, to: at };
                e.currentTarget.setPointerCapture(e.pointerId);
              }}
              onpointermove={drag}
              onpointerup={drop}
              onpointercancel={() => (held = null)}><GripVertical size={18} /></span
            >
            <span class="min-w-0 flex-1">
              <span class="block leading-tight font-semibold">{layer.name}</span>
              <span class="block text-[0.75rem] quiet"
                ><Qty kind="length_mm" value={layer.thickness_mm} />, <Qty
                  kind="mass_g"
                  value={layer.mass_g}
                />{layer.toasted ? ", toasted" : ""}</span
              >
            </span>
            {#if ["heel", "crown", "club"].includes(layer.kind)}
              <button
                class="act h-10 px-2 text-sm"
                aria-pressed={layer.toasted}
                onclick={() =>
                  set(sheet.stack.map((x, n) => (n === at ? { ...x, toasted: !layer.toasted } : x)))}
                >{layer.toasted ? "Plain" : "Toast"}<span class="sr-only">
                  the {layer.name.toLowerCase()}</span
                ></button
              >
            {/if}
            <button
              class="act size-10 p-0"
              disabled={at === build.layers.length - 1}
              onclick={() => move(at, 1)}
              ><ArrowUp size={18} aria-hidden="true" /><span class="sr-only">{layer.name} up</span></button
            >
            <button class="act size-10 p-0" disabled={at === 0} onclick={() => move(at, -1)}
              ><ArrowDown size={18} aria-hidden="true" /><span class="sr-only">{layer.name} down</span
              ></button
            >
            <button class="act size-10 p-0" onclick={() => set(sheet.stack.filter((_, n) => n !== at))}
              ><Trash size={18} aria-hidden="true" /><span class="sr-only">Take {layer.name} out</span
              ></button
            >
          </li>
        {/if}
      {/each}
    </ol>
    <form class="mt-2 flex gap-2" onsubmit={add}>
      <select
        class="h-[2.625rem] min-w-0 flex-1 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 font-semibold"
        aria-label="Another layer"
        bind:value={chosen}
      >
        {#each offered as layer, n (n)}<option value={String(n)}>{layer.title}</option>{/each}
      </select>
      <button class="act">Lay it on</button>
    </form>
    {#if bench.refusal?.target === "set-stack"}<p role="alert" class="mt-2 text-[0.875rem] text-error">
        {bench.refusal.detail}
      </p>{/if}
  </section>
</div>
