<!-- When what is on the heat comes off, after what was read of it. -->
<script lang="ts">
  import type { Foretold } from "../../lib/api/client";
  import { amount, time } from "../../lib/format";
  import Say from "../../lib/ui/Say.svelte";
  import { units } from "../../lib/units.svelte";

  interface Props {
    heat: NonNullable<Foretold["forecast"]["on_the_heat"]>;
    /** Seconds since the cook began. */
    now: number;
    /** Whether a probe can be held in a piece. */
    probe: boolean;
  }
  let { heat, now, probe }: Props = $props();
  /** Longer than this, the hour of the day says more than minutes on the heat. */
  const BY_THE_CLOCK_S = 15 * 60;
  const byClock = $derived(heat.off_s.usual > BY_THE_CLOCK_S);

  function clock(since_start_s: number): string {
    const at = new Date(Date.now() + (since_start_s - now) * 1000);
    return `${String(at.getHours()).padStart(2, "0")}:${String(at.getMinutes()).padStart(2, "0")}`;
  }
  const moment = (since_laid_s: number): string =>
    byClock ? clock(heat.laid_s + since_laid_s) : time(since_laid_s);
</script>

<section class="mt-2 text-lg" aria-label="Forecast" data-forecast={heat.doubtful ? "doubtful" : "counts"}>
  <p>
    Off at <span class="text-2xl numeral">{moment(heat.off_s.usual)}</span>{byClock ? "" : " on the heat"}
    <span class="text-[#a9b5b6]"
      >(<span class="numeral">{moment(heat.off_s.low)}</span> to
      <span class="numeral">{moment(heat.off_s.high)}</span>), planned
      <span class="numeral">{moment(heat.planned_off_s)}</span>{heat.moved
        ? ". The timer follows this"
        : ""}{probe ? "" : heat.moved ? ", to its late end" : ""}</span
    >
  </p>
  <p
    class={heat.doubtful ? "text-[#ffab9f]" : heat.off_now ? "text-primary" : "text-[#c9d1d0]"}
    role="status"
  >
    {#if heat.readings.length > 0}
      <Say text={heat.message} />
    {:else if probe && heat.read_at_s > now}
      A core reading in <span class="numeral">{time(heat.read_at_s - now)}</span> tells most.
    {:else if probe}
      A core reading now moves this.
    {:else}
      Too thin to probe: the timer keeps to the late end.
    {/if}
  </p>
  {#if heat.readings.length > 1}
    <p class="text-base text-[#a9b5b6]">
      {#each heat.readings as r, n (n)}{n > 0 ? ", " : "Read "}<span
          class={["numeral", r.used ? "" : "line-through"]}
          >{amount({ kind: "temp_c", value: r.core_c }, units)}</span
        >
        at <span class="numeral">{moment(r.at_s)}</span>{r.used ? "" : " (not counted)"}{/each}
    </p>
  {/if}
</section>
