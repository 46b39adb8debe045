<!-- Three ways to a target: many meats at once, two in a square, or something added to a batch. -->
<script lang="ts">
  import type { StepProps } from "../step";
  import ManyMeatsView from "./ManyMeatsView.svelte";
  import MendBatch from "./MendBatch.svelte";
  import PearsonSquare from "./PearsonSquare.svelte";

  let props: StepProps = $props();
  const ways = [
    { key: "many", title: "Many meats" },
    { key: "square", title: "Two meats, in a square" },
    { key: "mend", title: "Mend a batch" },
  ] as const;
  let way = $state<(typeof ways)[number]["key"]>("many");
</script>

<div
  role="radiogroup"
  aria-label="Way to the target"
  class="mb-4 inline-flex max-w-full overflow-x-auto rounded-[0.25rem] border border-[#8b8f8a]"
>
  {#each ways as { key, title } (key)}
    <button
      role="radio"
      aria-checked={way === key}
      class={[
        "h-10 cursor-pointer px-3 font-semibold whitespace-nowrap",
        way === key ? "bg-primary text-primary-content" : "bg-paper hover:bg-base-200",
      ]}
      onclick={() => (way = key)}>{title}</button
    >
  {/each}
</div>
{#if way === "many"}<ManyMeatsView {...props} />{:else if way === "square"}<PearsonSquare
    {...props}
  />{:else}<MendBatch {...props} />{/if}
