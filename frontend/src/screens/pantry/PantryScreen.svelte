<!-- The pantry: what the house makes itself, and everything it buys to go with meat. -->
<script lang="ts">
  import type { PantryThing } from "../../lib/api/client";
  import FileReport from "../../lib/ui/FileReport.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import HouseSheet from "./HouseSheet.svelte";
  import HouseTable from "./HouseTable.svelte";
  import IngredientSheet from "./IngredientSheet.svelte";
  import IngredientTable from "./IngredientTable.svelte";
  import { PantryRoom } from "./pantry.svelte";

  const room = new PantryRoom();
  let making = $state.raw<PantryThing | "new" | null>(null);
  let correcting = $state.raw<PantryThing | "new" | null>(null);
  $effect(() => void room.load());
</script>

<svelte:head><title>Pantry · Vianda</title></svelte:head>
<Shell here="Pantry">
  <main id="main" class="mx-auto w-full max-w-6xl px-4 pt-8 pb-12 sm:px-6">
    <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
      <div>
        <h1 class="text-2xl">Pantry</h1>
        <p class="text-[0.875rem] quiet">
          What goes into the meat: composition, what a cup or a piece weighs, allergens, its own salt.
        </p>
      </div>
      <p role="status" class="text-sm quiet">{room.status}</p>
    </div>
    {#if room.problem && !making && !correcting}<p role="alert" class="mt-3 text-error">
        {room.problem}
      </p>{/if}
    {#if room.things}
      <HouseTable {room} onnew={() => (making = "new")} onedit={(thing) => (making = thing)} />
      <IngredientTable {room} onnew={() => (correcting = "new")} onedit={(thing) => (correcting = thing)} />
    {:else if !room.problem}
      <p class="mt-4 quiet" aria-busy="true">Opening the cupboard …</p>
    {/if}
  </main>
</Shell>
<FileReport report={room.file.report} onclose={() => (room.file.report = null)} />
{#if making}<HouseSheet
    {room}
    thing={making === "new" ? null : making}
    onclose={() => (making = null)}
  />{/if}
{#if correcting}
  <IngredientSheet
    {room}
    thing={correcting === "new" ? null : correcting}
    onclose={() => (correcting = null)}
  />
{/if}
