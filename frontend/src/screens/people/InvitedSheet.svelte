<!-- A link that works once: to be scanned with a telephone, or copied. -->
<script lang="ts">
  import type { Invited } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import Sheet from "../../lib/ui/Sheet.svelte";

  let { invited, onclose }: { invited: Invited | null; onclose: () => void } = $props();
  let copied = $state(false);
  const local = ["localhost", "127.0.0.1", "[::1]"].includes(location.hostname);
  $effect(() => {
    if (invited) copied = false;
  });
  async function copy(): Promise<void> {
    await navigator.clipboard.writeText(invited?.link ?? "");
    copied = true;
  }
</script>

<Sheet open={invited != null} title={`For ${invited?.name ?? ""}`} {onclose}>
  {#if invited}
    <p>Works once, until {moment(invited.ends_at)}. Whoever opens it comes in as {invited.role}.</p>
    <img class="mx-auto mt-3 w-64" src={invited.picture} alt="The link as a code for a telephone's camera" />
    <p class="mt-3 bg-base-200 p-2 text-[0.8125rem]"><code>{invited.link}</code></p>
    {#if local}
      <p class="mt-3 text-[0.875rem] text-warning">
        This address works on this machine only. For a telephone, start with ./start --lan, open Vianda by its
        address in the kitchen's net, and make the link there.
      </p>
    {/if}
    <button class="mt-3 act" onclick={copy}>{copied ? "Copied" : "Copy the link"}</button>
  {/if}
</Sheet>
