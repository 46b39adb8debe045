<!-- The larder: deliveries with what is known of their fat, and every meat; in and out as a file. -->
<script lang="ts">
  import type { KnownLot, Meat } from "../../lib/api/client";
  import Shell from "../../lib/ui/Shell.svelte";
  import FileReport from "../../lib/ui/FileReport.svelte";
  import { LarderRoom } from "./larder.svelte";
  import LotSheet from "./LotSheet.svelte";
  import LotTable from "./LotTable.svelte";
  import LearnSheet from "./LearnSheet.svelte";
  import MeatSheet from "./MeatSheet.svelte";
  import MeatTable from "./MeatTable.svelte";

  const room = new LarderRoom();
  let writing = $state<KnownLot | "new" | null>(null);
  let learning = $state<string | null>(null);
  let correcting = $state.raw<Meat | "new" | null>(null);
  $effect(() => void room.load());
  const lot = $derived(room.content?.lots.find((l) => l.lot.key === learning) ?? null);
</script>

<svelte:head><title>Larder · Vianda</title></svelte:head>
<Shell here="Larder">
  <main id="main" class="mx-auto w-full max-w-6xl px-4 pt-8 pb-12 sm:px-6">
    <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <div>
        <h1 class="text-2xl">Larder</h1>
        <p class="text-[0.875rem] quiet">
          A meat is a range; a lot is one delivery of it, and what you know of its fat narrows the range.
        </p>
      </div>
      <p role="status" class="text-sm quiet">{room.status}</p>
    </div>
    {#if room.problem && !writing && !learning && !correcting}<p role="alert" class="mt-3 text-error">
        {room.problem}
      </p>{/if}
    {#if room.content}
      <LotTable
        lots={room.content.lots}
        meats={room.content.meats}
        onnew={() => (writing = "new")}
        onedit={(known) => (writing = known)}
        onlearn={(key) => (learning = key)}
      />
      <MeatTable
        {room}
        meats={room.content.meats}
        onnew={() => (correcting = "new")}
        onedit={(meat) => (correcting = meat)}
      />
    {:else if !room.problem}
      <p class="mt-4 quiet" aria-busy="true">Opening the cold room …</p>
    {/if}
  </main>
</Shell>
{#if writing && room.content}
  <LotSheet
    {room}
    known={writing === "new" ? null : writing}
    meats={room.content.meats}
    onclose={() => (writing = null)}
  />
{/if}
{#if lot}<LearnSheet {room} known={lot} onclose={() => (learning = null)} />{/if}
{#if correcting}
  <MeatSheet {room} meat={correcting === "new" ? null : correcting} onclose={() => (correcting = null)} />
{/if}
<FileReport report={room.file.report} onclose={() => (room.file.report = null)} />
