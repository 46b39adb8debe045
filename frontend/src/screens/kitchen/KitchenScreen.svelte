<!-- The kitchen: whose rules lead, what the scale can show, what there is to cook on and grind with. -->
<script lang="ts">
  import { api, ProblemError, type Kitchen, type StoredKitchen } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { units } from "../../lib/units.svelte";
  import BreadSheet from "./BreadSheet.svelte";
  import GrinderSheet from "./GrinderSheet.svelte";
  import KitchenSettings from "./KitchenSettings.svelte";
  import ItemSection from "./ItemSection.svelte";
  import SurfaceSheet from "./SurfaceSheet.svelte";
  import KitchenList from "./KitchenList.svelte";
  import MouldSheet from "./MouldSheet.svelte";

  let stored = $state.raw<StoredKitchen | null>(null);
  let problem = $state<string | null>(null);
  let status = $state("");

  $effect(() => {
    void attempt(async () => {
      stored = await api.kitchen();
    });
  });
  async function attempt(run: () => Promise<void>): Promise<void> {
    problem = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 409) {
        stored = error.problem.current as StoredKitchen;
        problem =
          "Another window changed the kitchen meanwhile. It is shown as it stands now; make your change again.";
      } else problem = error.problem.detail;
    }
  }
  const change = (part: Partial<Kitchen>) =>
    attempt(async () => {
      if (!stored) return;
      stored = await api.saveKitchen({ ...stored.kitchen, ...part }, stored.revision);
      units.currency = stored.kitchen.currency_code;
      status = "Saved";
    });
  async function keep(part: Partial<Kitchen>): Promise<boolean> {
    await change(part);
    return problem == null;
  }
  function made(s: Kitchen["surfaces"][number]): string {
    const h = s.heating;
    if (!h) return "";
    if (s.kind === "oven") return `${h.fan ? "fan" : "still"}${h.offset_k ? `, off by ${h.offset_k} K` : ""}`;
    if (s.kind === "grate") return `${h.fuel}, ${h.layout}${h.lid ? ", lid" : ""}`;
    return `${h.metal}${h.thickness_mm ? `, ${h.thickness_mm} mm` : ""}, ${h.power} burner`;
  }
</script>

<svelte:head><title>Kitchen · Vianda</title></svelte:head>
<Shell here="Kitchen">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    {#if stored}
      {@const kitchen = stored.kitchen}
      <div class="flex items-baseline justify-between border-b-2 border-base-content pb-2">
        <h1 class="text-2xl">{kitchen.name}</h1>
        <p role="status" class="text-sm quiet">{status}</p>
      </div>
      {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>{/if}
      <KitchenSettings {kitchen} options={stored.options} onchange={change} />
      <ItemSection
        title="Surfaces"
        line="Plates, pans, grates and ovens as they really behave: what is written here moves the computed heat."
        addLabel="Add a surface"
        items={kitchen.surfaces}
        onsave={(surfaces) => keep({ surfaces })}
      >
        {#snippet row(s)}
          <td class="px-3 py-1.5 text-[0.875rem] quiet max-sm:hidden">{made(s)}</td>
          <td class="px-3 py-1.5 text-right numeral"
            >{#if s.round_shape}<Qty kind="length_mm" value={s.width_mm} /> across{:else}<Qty
                kind="length_mm"
                value={s.width_mm}
              /> × <Qty kind="length_mm" value={s.depth_mm} />{/if}</td
          >
        {/snippet}
        {#snippet sheet(surface, taken, onclose, onsave)}
          <SurfaceSheet {surface} {taken} {problem} {onclose} {onsave} options={stored?.options ?? {}} />
        {/snippet}
      </ItemSection>
      <ItemSection
        title="Breads"
        line="Buns, slices, tortillas and flatbreads. A piece is made to come out as wide as one."
        addLabel="Add a bread"
        items={kitchen.buns.filter((b) => b.diameter_mm > 0)}
        onsave={(buns) => keep({ buns: [...buns, ...kitchen.buns.filter((b) => b.diameter_mm === 0)] })}
      >
        {#snippet row(b)}
          <td class="px-3 py-1.5 text-right numeral"
            ><Qty kind="length_mm" value={b.diameter_mm} />{#if b.depth_mm}&nbsp;× <Qty
                kind="length_mm"
                value={b.depth_mm}
              />{/if}</td
          >
          <td class="px-3 py-1.5 text-right numeral"><Qty kind="money" value={Number(b.price_each)} /></td>
          <td class="px-3 py-1.5 text-right text-[0.8125rem] quiet max-sm:hidden">{b.allergens.join(", ")}</td
          >
        {/snippet}
        {#snippet sheet(bread, taken, onclose, onsave)}
          <BreadSheet {bread} {taken} {problem} {onclose} {onsave} />
        {/snippet}
      </ItemSection>
      <ItemSection
        title="To shape with"
        line="Tins, trays, scoops and rings, measured inside. A tin is measured best by the water it holds."
        addLabel="Add a mould"
        items={kitchen.moulds ?? []}
        onsave={(moulds) => keep({ moulds })}
      >
        {#snippet row(w)}
          <td class="px-3 py-1.5 text-right numeral"
            >{#if w.kind === "scoop"}{#if w.scoop_number}<span class="font-normal quiet"
                  >32 US fl oz ÷ {w.scoop_number}</span
                >{:else}<Qty kind="volume_ml" value={w.volume_ml ?? 0} />{/if}{:else}<Qty
                kind="length_mm"
                value={w.length_mm ?? 0}
              />{#if w.kind !== "ring"}&nbsp;× <Qty kind="length_mm" value={w.width_mm ?? 0} />{/if}, <Qty
                kind="length_mm"
                value={w.height_mm ?? 0}
              /> high{/if}</td
          >
        {/snippet}
        {#snippet sheet(mould, taken, onclose, onsave)}
          <MouldSheet {mould} {taken} {problem} {onclose} {onsave} />
        {/snippet}
      </ItemSection>
      <ItemSection
        title="To grind with"
        addLabel="Add a tool"
        items={kitchen.grinders ?? []}
        onsave={(grinders) => keep({ grinders })}
      >
        {#snippet row(g)}
          <td class="px-3 py-1.5 quiet max-sm:hidden"
            >{g.plates_mm.length ? `plates ${g.plates_mm.join(", ")} mm` : g.kind}</td
          >
          <td class="px-3 py-1.5 text-right numeral"
            ><Qty kind="mass_g" value={g.load_g} /> <span class="font-normal quiet">a load</span></td
          >
          <td class="px-3 py-1.5 text-right numeral max-sm:hidden"
            ><Qty kind="mass_g" value={g.hold_up_g} /> <span class="font-normal quiet">stay in it</span></td
          >
        {/snippet}
        {#snippet sheet(grinder, taken, onclose, onsave)}
          <GrinderSheet {grinder} {taken} {problem} {onclose} {onsave} />
        {/snippet}
      </ItemSection>
    {:else}
      <h1 class="text-2xl">Kitchen</h1>
      {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>{:else}<p
          class="mt-3 quiet"
          aria-busy="true"
        >
          Loading…
        </p>{/if}
    {/if}
    <KitchenList />
  </main>
</Shell>
