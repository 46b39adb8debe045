<!-- The kitchen fat test: four weights in, fat with its uncertainty out, before it is kept. -->
<script lang="ts">
  import { api, ProblemError, type FatTest, type KnownLot } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { units } from "../../lib/units.svelte";
  import type { LarderRoom } from "./larder.svelte";

  let { room, known }: { room: LarderRoom; known: KnownLot } = $props();
  let weights = $state({ raw: "", lean: "", fat: "", liquid: "" });
  let found = $state.raw<FatTest | null>(null);
  let refused = $state<string | null>(null);
  const whole = $derived(
    weights.raw.trim() !== "" && weights.lean.trim() !== "" && weights.fat.trim() !== "",
  );

  $effect(() => {
    const asked = { ...weights };
    if (!whole) {
      found = null;
      refused = null;
      return;
    }
    let current = true;
    api.readFatTest(asked, units.system).then(
      (answer) => current && ((found = answer), (refused = null)),
      (error: unknown) => {
        if (!current) return;
        found = null;
        refused = error instanceof ProblemError ? error.problem.detail : "It cannot be read.";
      },
    );
    return () => (current = false);
  });
  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = await room.attempt(async () => {
      await api.logFatTest(known.lot.key, { ...weights }, units.system, known.revision);
    }, "Noted");
    if (done) weights = { raw: "", lean: "", fat: "", liquid: "" };
  }
</script>

<form class="mt-3" onsubmit={keep}>
  <p class="text-[0.875rem] leading-snug quiet">
    Mix, weigh 100–250 g raw, brown it in crumbs until dry and the fat runs clear, drain and press. Weigh the
    lean, the fat that ran out, and any watery juice apart.
  </p>
  <div class="mt-2 flex flex-wrap gap-3">
    <TextField
      label="Raw sample"
      width="6.5rem"
      placeholder="200 g"
      value={weights.raw}
      oninput={(t) => (weights.raw = t)}
    />
    <TextField
      label="Lean, drained"
      width="6.5rem"
      placeholder="128 g"
      value={weights.lean}
      oninput={(t) => (weights.lean = t)}
    />
    <TextField
      label="Fat that ran"
      width="6.5rem"
      placeholder="18 g"
      value={weights.fat}
      oninput={(t) => (weights.fat = t)}
    />
    <TextField
      label="Watery juice"
      width="6.5rem"
      placeholder="0 g"
      value={weights.liquid}
      oninput={(t) => (weights.liquid = t)}
    />
  </div>
  <div class="mt-2 min-h-16" role="status">
    {#if refused}<p class="text-error">{refused}</p>
    {:else if found}
      <p>
        <strong class="text-[1.1875rem] numeral"
          ><Qty kind="fine_frac" value={found.test.fat_frac} /> fat ± <Qty
            kind="fine_frac"
            value={found.test.sd_frac}
          /></strong
        >
        <span class="text-[0.875rem] quiet"
          >(one standard error). ({weights.fat} + {(found.test.left_frac * 100).toFixed(1)} % of {weights.lean})
          ÷
          {weights.raw}; <Qty kind="mass_g" value={found.test.steam_g} /> went as steam.</span
        >
      </p>
      <p class="text-[0.8125rem] quiet">
        Uncertainty from draining <Qty kind="fine_frac" value={found.test.sd_left_frac} />, sample <Qty
          kind="fine_frac"
          value={found.test.sd_sample_frac}
        />, fat left on the pan <Qty kind="fine_frac" value={found.test.sd_lost_frac} />, scale <Qty
          kind="fine_frac"
          value={found.test.sd_weighing_frac}
        />. {found.roughness}
      </p>
    {/if}
  </div>
  <button class="mt-1 act-main" disabled={!found}>Note the test</button>
</form>
