<!-- From bowl to plate: what stays behind, what the heat takes as water and as fat, and what is served. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import Qty from "../../lib/ui/Qty.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    evaluation: Evaluation;
    onworking: (working: string) => void;
  }
  let { evaluation, onworking }: Props = $props();
  const batch = $derived(evaluation.batch_yield);
  const parts = $derived(
    [
      { key: "cooked", title: "cooked", g: batch.cooked_g.usual, fill: "#4a2b20", ink: "#fff" },
      { key: "water", title: "water", g: batch.water_g, fill: "#9fb2b5", ink: "#1b2327" },
      { key: "fat", title: "rendered fat", g: batch.fat_g, fill: "#d9bf83", ink: "#1b2327" },
      { key: "left", title: "left over", g: batch.left_g, fill: "#b98a93", ink: "#1b2327" },
      { key: "loss", title: "handling loss", g: batch.loss_g, fill: "#8b8f8a", ink: "#fff" },
    ].filter((p) => p.g > 0.4),
  );
  const total = $derived(parts.reduce((sum, p) => sum + p.g, 0));
  const mass = (value: number) => amount({ kind: "mass_g", value }, units);
</script>

<div>
  <div class="flex h-11 w-full overflow-hidden rounded-[2px]" aria-hidden="true">
    {#each parts as part (part.key)}
      <span
        class="flex items-center overflow-hidden px-2 text-[0.8125rem] whitespace-nowrap"
        style:width={`${(part.g / total) * 100}%`}
        style:background={part.fill}
        style:color={part.ink}>{part.g / total > 0.14 ? part.title : ""}</span
      >
    {/each}
  </div>
  <dl class="mt-2 flex flex-wrap gap-x-7 gap-y-2">
    <div>
      <dt class="text-[0.8125rem] quiet">In the bowl</dt>
      <dd class="text-[1.0625rem] numeral"><Qty kind="mass_g" value={batch.bowl_g} /></dd>
    </div>
    <div>
      <dt class="text-[0.8125rem] quiet">Shaped</dt>
      <dd class="text-[1.0625rem] numeral"><Qty kind="mass_g" value={batch.shaped_g} /></dd>
    </div>
    {#each parts as part (part.key)}
      <div>
        <dt class="flex items-center gap-1.5 text-[0.8125rem] quiet">
          <span class="inline-block size-2.5 rounded-[2px]" style:background={part.fill} aria-hidden="true"
          ></span>{part.title}
        </dt>
        <dd class="text-[1.0625rem] numeral">
          {#if part.key === "cooked"}<button
              class="cursor-pointer underline decoration-base-300 decoration-2 underline-offset-4"
              onclick={() => onworking("cooked_mass")}
              ><Qty kind="mass_g" value={batch.cooked_g.low} high={batch.cooked_g.high} /><span
                class="sr-only">, show the working</span
              ></button
            >{:else}{mass(part.g)}{/if}
        </dd>
      </div>
    {/each}
  </dl>
</div>
