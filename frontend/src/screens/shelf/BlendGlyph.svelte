<!-- A blend in small: width is share, pale height is fat (to 50 %), as on the meat step. -->
<script lang="ts">
  let { strips }: { strips: [number, number][] } = $props();
  const laid = $derived.by(() => {
    let from = 0;
    return strips.map(([share, fat]) => {
      const strip = { from, share, fat: Math.min(0.5, fat) };
      from += share;
      return strip;
    });
  });
</script>

<svg viewBox="0 0 88 28" class="h-7 w-22 max-sm:hidden" aria-hidden="true">
  {#each laid as strip, at (at)}
    {@const width = Math.max(0, strip.share * 88 - 1)}
    <rect x={strip.from * 88} {width} height="28" class="fill-lean" />
    <rect x={strip.from * 88} y={28 - strip.fat * 56} {width} height={strip.fat * 56} class="fill-fat" />
  {/each}
</svg>
