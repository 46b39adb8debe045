<!-- Two windows saved the same formula: both texts are kept until the cook chooses. -->
<script lang="ts">
  import type { Bench } from "../../lib/bench.svelte";
  import { moment } from "../../lib/format";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { navigate } from "../../router";

  let { bench }: { bench: Bench } = $props();

  async function both(): Promise<void> {
    const id = await bench.keepBoth();
    if (id == null) return;
    await bench.takeTheirs();
    await navigate(`/formula/${id}/dish` as "/");
  }
</script>

<Sheet open={bench.theirs != null} title="Saved elsewhere meanwhile" onclose={() => undefined} firm>
  <p>
    Another window saved <strong>{bench.theirs?.formula.name}</strong>
    {bench.theirs ? `on ${moment(bench.theirs.updated_at)}` : ""}. Nothing is lost: choose which one stands.
    The other stays one step back in undo.
  </p>
  <div class="mt-4 flex flex-wrap gap-2">
    <button class="act-main" onclick={() => bench.keepMine()}>Keep mine</button>
    <button class="act" onclick={() => bench.takeTheirs()}>Take theirs</button>
    <button class="act" onclick={both}>Keep both: mine as a copy</button>
  </div>
</Sheet>
