<!-- One of a short list, as a native select: works with a knuckle, a keyboard and a screen reader. As wide as its longest name. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    options: { key: string; title: string }[];
    onpick: (key: string) => void;
    width?: string;
    refusal?: string | null;
    /** Said to screen readers only, where the place tells it to eyes. */
    hideLabel?: boolean;
  }
  let { label, value, options, onpick, width = "12rem", refusal = null, hideLabel = false }: Props = $props();
  const uid = $props.id();
</script>

<div class="min-w-0">
  <label for={uid} class={hideLabel ? "sr-only" : "mb-0.5 block text-[0.8125rem] quiet"}>{label}</label>
  <select
    id={uid}
    class="h-[2.625rem] max-w-[min(100%,26rem)] cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2 font-semibold"
    style:min-width="min(100%, {width})"
    {value}
    onchange={(e) => onpick(e.currentTarget.value)}
  >
    {#each options as option (option.key)}
      <option value={option.key}>{option.title}</option>
    {/each}
  </select>
  {#if refusal}<p role="alert" class="mt-1 max-w-64 text-[0.8125rem] text-error">{refusal}</p>{/if}
</div>
