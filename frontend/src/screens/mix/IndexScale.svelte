<!-- An index from 0 to 100 with its word; the rules that make it stand in its working. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";

  interface Props {
    title: string;
    index: Evaluation["mix"]["bind"];
    ends: [string, string];
    onworking: () => void;
  }
  let { title, index, ends, onworking }: Props = $props();
  const strongest = $derived(
    [...index.terms]
      .slice(1)
      .sort((a, b) => Math.abs(b.points) - Math.abs(a.points))
      .slice(0, 3),
  );
  const signed = (points: number) => `${points > 0 ? "+" : "−"}${Math.abs(points)}`;
</script>

<button class="mt-2.5 block w-full cursor-pointer rounded text-left hover:bg-base-200" onclick={onworking}>
  <span class="flex items-baseline justify-between gap-3">
    <span class="font-semibold">{title}: {index.word}</span>
    <span class="text-[1.0625rem] numeral">{index.value}</span>
  </span>
  <span class="relative mt-1 block h-4 bg-base-200" aria-hidden="true">
    <span class="absolute inset-y-0 left-0 bg-[#6b5140]" style:width={`${index.value}%`}></span>
    <span class="absolute inset-y-[-3px] left-[40%] w-0.5 bg-base-content"></span>
  </span>
  <span class="flex justify-between text-[0.75rem] quiet"><span>{ends[0]}</span><span>{ends[1]}</span></span>
  <span class="block text-[0.8125rem] leading-snug quiet"
    >{#each strongest as term, at (term.rule)}{at ? " · " : ""}{term.rule} {signed(term.points)}{/each}<span
      class="sr-only">, show the working</span
    ></span
  >
</button>
