<!-- The section of one build, drawn to scale: each layer as thick and as wide as it is, with a bar of 20 mm. -->
<script lang="ts">
  import type { Evaluation } from "../api/client";

  let { build }: { build: Evaluation["beside"]["build"] } = $props();
  // Colour stands for the kind of thing; each layer is named beside it too.
  const fills: Record<string, string> = {
    heel: "#c99a5b",
    crown: "#c99a5b",
    club: "#c99a5b",
    patty: "#5f3f33",
    cheese: "#e0b13f",
    sauce: "#d98d6a",
    leaf: "#7d9a52",
    tomato: "#c0513f",
    onion: "#d8cfe0",
    "soft-onion": "#b88a4a",
    pickle: "#8a9a3c",
    relish: "#a3a043",
    bacon: "#a5564a",
    egg: "#f2ead0",
    mushroom: "#93816d",
    pepper: "#b9603c",
    other: "#9aa0a0",
  };
  let width = $state(420);
  const wide = $derived(Math.max(...build.layers.map((l) => l.width_mm), 60));
  const scale = $derived(Math.min((width - 150) / wide, 340 / Math.max(build.height_mm, 1)));
  const height = $derived(build.height_mm * scale + 40);
  const drawn = $derived.by(() => {
    let below = 0;
    // A folded bread, and meat that folds with it, lie above the rest a second time.
    return [...build.layers, ...build.layers.filter((l) => l.folded).reverse()].map((layer) => {
      const y = height - 30 - (below + layer.thickness_mm) * scale;
      below += layer.thickness_mm;
      return { layer, y, h: Math.max(1.5, layer.thickness_mm * scale), w: layer.width_mm * scale };
    });
  });
  /** Left edge of a layer: in its middle over the bread; what is folded, and what lies in the fold, begins at the fold. */
  const from = (w: number) => (build.folded ? centre - (wide * scale) / 2 : centre - w / 2);
  /** The fold, on the left: each folded layer goes round in a half circle. */
  const folds = $derived(
    build.layers.flatMap((layer, n) => {
      if (!layer.folded) return [];
      const lower = drawn[n];
      const upper = drawn.findLast((d) => d.layer === layer);
      if (!lower || !upper) return [];
      const [low, high, x] = [lower.y + lower.h / 2, upper.y + upper.h / 2, from(lower.w) + 0.5];
      return [
        {
          kind: layer.kind,
          h: lower.h,
          d: `M${x} ${low}A${(low - high) / 2.6} ${(low - high) / 2} 0 0 1 ${x} ${high}`,
        },
      ];
    }),
  );
  /** Names stand apart even where layers are thin. */
  const labels = $derived.by(() => {
    let last = Infinity;
    return drawn.slice(0, build.layers.length).map((d) => {
      const y = Math.min(d.y + d.h / 2 + 4, last - 13);
      last = y;
      return y;
    });
  });
  const centre = $derived((wide * scale) / 2 + 6 + (build.folded ? (build.height_mm * scale) / 2.6 : 0));
  const edge = $derived(centre + (wide * scale) / 2);
  const named = $derived(
    `${build.folded ? "Folded over. " : ""}From below: ${build.layers.map((l) => `${l.name} ${l.thickness_mm.toFixed(0)} mm`).join(", ")}. ${build.height_mm.toFixed(0)} mm in all.`,
  );
</script>

<div bind:clientWidth={width} class="min-w-0">
  <svg {width} {height} role="img" aria-label={named} class="block overflow-visible">
    {#each folds as fold (fold.kind)}
      <path d={fold.d} fill="none" stroke={fills[fold.kind]} stroke-width={fold.h} />
    {/each}
    {#each drawn as d, n (n)}
      <rect
        x={from(d.w)}
        y={d.y}
        width={d.w}
        height={d.h}
        rx={d.layer.kind === "crown" ? Math.min(d.h * 0.8, 26) : Math.min(3, d.h / 2)}
        fill={fills[d.layer.kind]}
        class="stroke-base-content"
        stroke-width="0.75"
      />
      {#if d.layer.toasted}<path
          d={`M${from(d.w) + 3} ${d.layer.kind === "heel" ? d.y + 1.5 : d.y + d.h - 1.5}h${d.w - 6}`}
          stroke="#5f3f1f"
          stroke-width="2.5"
        />{/if}
      {#if n < labels.length}
        <path
          d={`M${from(d.w) + d.w + 2} ${d.y + d.h / 2}L${edge + 6} ${(labels[n] ?? 0) - 4}`}
          class="stroke-quiet"
          fill="none"
          stroke-width="0.75"
        />
        <text x={edge + 10} y={labels[n]} class="fill-base-content text-[12px]">{d.layer.name}</text>
      {/if}
    {/each}
    <path
      d={`M6 ${height - 12}h${20 * scale}m0 -4v8m-${20 * scale} -8v8`}
      class="stroke-base-content"
      fill="none"
    />
    <text x={12 + 20 * scale} y={height - 8} class="fill-quiet text-[11.5px]">20 mm</text>
  </svg>
</div>
