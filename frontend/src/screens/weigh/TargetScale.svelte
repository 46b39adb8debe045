<!-- Where the reading lies against the target and its tolerance. -->
<script lang="ts">
  import { scaleLinear } from "d3-scale";

  let { target, tolerance, shown }: { target: number; tolerance: number; shown: number | null } = $props();
  let width = $state(600);
  const reach = $derived(Math.max(tolerance * 5, target * 0.12));
  const x = $derived(scaleLinear([target - reach, target + reach], [10, Math.max(60, width - 10)]));
  const at = $derived(shown == null ? null : Math.min(target + reach, Math.max(target - reach, shown)));
  const off = $derived(shown != null && Math.abs(shown - target) > reach);
</script>

<div class="mt-2" bind:clientWidth={width}>
  <svg {width} height="40" class="block" aria-hidden="true">
    <rect x="10" y="14" width={Math.max(0, width - 20)} height="12" rx="2" class="fill-base-300" />
    <rect
      x={x(target - tolerance)}
      y="10"
      width={x(target + tolerance) - x(target - tolerance)}
      height="20"
      rx="2"
      class="fill-success"
      opacity="0.55"
    />
    <path d={`M${x(target)} 6V34`} class="stroke-base-content" stroke-width="1.5" />
    {#if at != null}
      <path
        d={`M${x(at)} 2V38`}
        class={off ? "stroke-error" : "stroke-primary"}
        stroke-width="6"
        stroke-linecap="round"
        stroke-dasharray={off ? "3 7" : undefined}
      />
    {/if}
  </svg>
</div>
