<!-- What a piece comes to, under its drawing: yield split, dimple, press, filling, eggs, lumps, density. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    shape: Evaluation["shape"];
    onworking: (working: string) => void;
  }
  let { shape, onworking }: Props = $props();
  const g = (value: number) => amount({ kind: "mass_g", value }, units);
  const core = $derived(shape.filling);
  const eggs = $derived(shape.eggs);
  const lumps = $derived(shape.lumps);
</script>

<div class="mt-3 flex flex-wrap gap-x-8 gap-y-3 border-t border-base-300 pt-3">
  {#if shape.form !== "crumbled" && shape.raw_diameter_mm > 0}
    <Fact
      label={["loaf", "tin", "tray"].includes(shape.form) ? "Cooked length" : "Cooked diameter"}
      onclick={() => onworking("diameter")}
      ><Qty
        kind="length_mm"
        value={shape.cooked_diameter_mm.low}
        high={shape.cooked_diameter_mm.high}
      /></Fact
    >
  {/if}
  {#if shape.form !== "crumbled"}
    <Fact label="Cooked weight" onclick={() => onworking("cooked_mass")}
      ><Qty kind="mass_g" value={shape.cooked_mass_g.low} high={shape.cooked_mass_g.high} /></Fact
    >
  {/if}
  <div>
    <span class="block text-[0.8125rem] quiet">The heat takes</span>
    <span class="block text-[1.1875rem] leading-tight numeral"
      >{g(shape.water_lost_g)} water{#if shape.fat_rendered_g > 0.05}, {g(shape.fat_rendered_g)} fat{/if}</span
    >
  </div>
  {#if shape.dimple_size}
    <Fact label="Dimple, or it domes" onclick={() => onworking("diameter")}
      ><Qty kind="length_mm" value={shape.dimple_size.diameter_mm} /> × <Qty
        kind="length_mm"
        value={shape.dimple_size.depth_mm}
      /></Fact
    >
  {:else if shape.form === "disc"}
    <Fact label="Dimple">None needed</Fact>
  {/if}
  {#if shape.press_kg}
    <Fact label="Push on the press" onclick={() => onworking("diameter")}
      ><Qty kind="count" value={shape.press_kg.low} high={shape.press_kg.high} /> kg</Fact
    >
  {/if}
  {#if core}
    <Fact label="Meat above and below"><Qty kind="length_mm" value={core.wall_mm} /></Fact>
    <Fact label="Filling, a piece"><Qty kind="mass_g" value={core.mass_g} /></Fact>
  {/if}
  {#if eggs}
    <Fact label="Eggs in a row"
      ><Qty kind="count" value={eggs.eggs} /><span class="text-[0.875rem] font-normal">
        of {eggs.room_for} there is room for</span
      ></Fact
    >
    <Fact label="Slices with egg"
      ><Qty kind="count" value={eggs.slices_with_egg} /> of <Qty kind="count" value={eggs.slices} /></Fact
    >
    <Fact label="They take the room of"><Qty kind="volume_ml" value={eggs.displaced_ml} /></Fact>
  {/if}
  {#if lumps}
    <Fact label="Lumps in a portion"><Qty kind="count" value={lumps.per_portion} /></Fact>
    <Fact label="To brown on"><Qty kind="count" value={lumps.surface_cm2} /> cm²</Fact>
  {/if}
  {#if shape.form !== "crumbled"}
    <Fact label="Density, packed" onclick={() => onworking("diameter")}
      ><Qty kind="density_g_per_ml" value={shape.density_g_per_ml} /></Fact
    >
  {/if}
</div>
