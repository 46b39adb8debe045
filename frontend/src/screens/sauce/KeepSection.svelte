<!-- A tray kept for later: how fast its middle cools in a fridge, ice water or a freezer, by the published lines. -->
<script lang="ts">
  import { onDestroy } from "svelte";
  import { api, type KeptSauce } from "../../lib/api/client";
  import { amount } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Fact from "../../lib/ui/Fact.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import { Told } from "../../lib/told.svelte";
  import { units } from "../../lib/units.svelte";
  import QuickField from "../heat/QuickField.svelte";

  const places = [
    { key: "fridge", title: "Fridge" },
    { key: "ice-bath", title: "Ice water" },
    { key: "freezer", title: "Freezer" },
  ] as const;
  let depth_mm = $state(25);
  let cooled = $state<(typeof places)[number]["key"]>("fridge");
  const tray = new Resource<null, KeptSauce>((_, signal) => api.keepSauce({ depth_mm, cooled }, signal));
  $effect(() => {
    void [depth_mm, cooled];
    return tray.ask(null);
  });

  onDestroy(() => tray.clear());
  const degrees = (value: number) => amount({ kind: "temp_c", value }, units);
  const length = (value: number) => amount({ kind: "length_mm", value }, units);

  const told = new Told();
</script>

<section class="mt-8 border-t-2 border-base-content pt-3" aria-label="Keep it">
  <h2 class="text-lg">Keep it for later</h2>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <QuickField
      label="Tray, filled"
      value={length(depth_mm)}
      oncommit={(t) => told.read("length_mm", t, (v) => (depth_mm = v))}
    />
    <Segments label="It cools in" options={places} value={cooled} onpick={(key) => (cooled = key)} />
  </div>
  {#if told.problem}<p role="alert" class="mt-3 text-[0.875rem] text-error">{told.problem}</p>{/if}
  {#if tray.problem}
    <p role="alert" class="mt-3 text-[0.875rem] text-error">{tray.problem.detail}</p>
  {:else if tray.value}
    {@const found = tray.value}
    <div class="mt-3 flex flex-wrap gap-x-8 gap-y-3" data-kept={found.within ? "within" : "too-slow"}>
      {#each [found.first_h, found.whole_h] as hours, n (n)}
        <Fact label={`The middle, ${degrees(found.lines_c[0])} to ${degrees(found.lines_c[n + 1] ?? 0)}`}
          >{hours.low.toFixed(1)}–{hours.high.toFixed(1)} h</Fact
        >
      {/each}
      <Fact label="Deepest that does"><Qty kind="length_mm" value={found.deepest_mm} /></Fact>
    </div>
    <p class="mt-3 max-w-[44rem] border-l-4 border-warning pl-3 text-[0.875rem] leading-snug">
      <Say text={found.said} />
    </p>
  {/if}
</section>
