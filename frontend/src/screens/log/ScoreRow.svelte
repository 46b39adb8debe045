<!-- Five steps between two words, with a mark on the one that is wanted. -->
<script lang="ts">
  interface Props {
    label: string;
    low: string;
    high: string;
    wanted: number;
    value: number | null;
    onscore: (value: number | null) => void;
  }
  let { label, low, high, wanted, value, onscore }: Props = $props();
</script>

<div role="group" aria-label={label}>
  <div class="flex items-baseline justify-between text-[0.8125rem]">
    <span class="quiet">{low}</span><span class="font-semibold">{label}</span><span class="quiet">{high}</span
    >
  </div>
  <div class="mt-0.5 mb-1.5 grid grid-cols-5 gap-1">
    {#each [1, 2, 3, 4, 5] as n (n)}
      <button
        type="button"
        aria-pressed={value === n}
        aria-label={`${label} ${n} of 5${n === wanted ? ", as wanted" : ""}`}
        onclick={() => onscore(value === n ? null : n)}
        class={[
          "relative h-9 cursor-pointer rounded-[0.25rem] border numeral",
          value === n
            ? "border-primary bg-primary text-primary-content"
            : "border-base-300 bg-paper hover:border-[#8b8f8a]",
        ]}
        >{n}{#if n === wanted}<span
            class="absolute -bottom-[0.4375rem] left-1/2 h-[3px] w-5 -translate-x-1/2 bg-base-content"
          ></span>{/if}</button
      >
    {/each}
  </div>
</div>
