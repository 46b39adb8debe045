<!-- The tastes of a sauce, each on its own line with its school's band; what a proposal would make of it is an open mark. -->
<script lang="ts">
  import type { Catalogue, SauceTaste, TasteBand } from "../../lib/api/client";

  interface Props {
    taste: SauceTaste;
    proposed: TasteBand[];
    titles: Catalogue["tastes"];
  }
  let { taste, proposed, titles }: Props = $props();
  const of = $derived(new Map(titles.map((t) => [t.key as string, t])));
  const figure = (name: string, value: number) =>
    `${value.toFixed(of.get(name)?.digits ?? 1)}${of.get(name)?.unit ?? ""}`;
  const after = $derived(new Map(proposed.map((b) => [b.taste, b.value])));
  /** The line ends at twice the band's top, or a little past what is on it. */
  const end = (b: TasteBand) => Math.max(b.high * 1.6, b.value * 1.1, (after.get(b.taste) ?? 0) * 1.1, 1e-9);
  const at = (b: TasteBand, value: number) => `${Math.min(100, (100 * value) / end(b))}%`;
  const words = { below: "below", within: "within", above: "above" } as const;
</script>

<dl class="grid grid-cols-[minmax(0,1fr)] gap-y-2.5" aria-label="Tastes">
  {#each taste.bands as b (b.taste)}
    {@const then = after.get(b.taste)}
    <div data-taste={b.taste}>
      <dt class="flex items-baseline justify-between gap-3 text-[0.875rem]">
        <span class="font-semibold">{of.get(b.taste)?.title}</span>
        <span class={["numeral", b.where !== "within" && "text-warning"]}
          >{figure(b.taste, b.value)}{#if then !== undefined && Math.abs(then - b.value) > 1e-9}<span
              class="text-primary">{` → ${figure(b.taste, then)}`}</span
            >{/if}</span
        >
      </dt>
      <dd>
        <span class="relative mt-0.5 block h-5" aria-hidden="true">
          <span class="absolute inset-x-0 top-1/2 h-px bg-base-content"></span>
          <span
            class="absolute inset-y-1 bg-[#b9cfcb]"
            style:left={at(b, b.low)}
            style:width={`calc(${at(b, b.high)} - ${at(b, b.low)})`}
          ></span>
          <span class="absolute inset-y-0 w-1 -translate-x-1/2 bg-base-content" style:left={at(b, b.value)}
          ></span>
          {#if then !== undefined}<span
              class="absolute top-1/2 size-3 -translate-x-1/2 -translate-y-1/2 rotate-45 border-2 border-primary bg-base-100"
              style:left={at(b, then)}
            ></span>{/if}
        </span>
        <span class="block text-[0.75rem] quiet"
          >{words[b.where]} the band of {figure(b.taste, b.low)} to {figure(b.taste, b.high)}</span
        >
      </dd>
    </div>
  {/each}
</dl>
