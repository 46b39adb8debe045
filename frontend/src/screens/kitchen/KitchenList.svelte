<!-- The kitchens there are: open another, set one up, look round the demo or delete it. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { session } from "../../lib/session.svelte";
  import { refusalOf } from "../../lib/refusal";

  let problem = $state<string | null>(null);
  let asking = $state(false);
  const run = async (change: () => ReturnType<typeof api.kitchens>) => {
    problem = await refusalOf(() => kitchens.change(change));
    asking = false;
  };
</script>

<section aria-label="Kitchens" class="mt-8">
  <h2 class="border-b-2 border-base-content pb-1.5 text-lg">Kitchens</h2>
  <ul>
    {#each kitchens.list as kitchen (kitchen.id)}
      <li class="flex min-h-12 flex-wrap items-center gap-3 border-b border-base-300 py-1.5">
        <span class="min-w-0 flex-1 truncate">
          <span class="font-semibold">{kitchen.name}</span>
          {#if kitchen.demo}<span class="quiet"> · demo, invented records</span>{/if}
        </span>
        {#if kitchen.id === kitchens.here}
          <span class="text-sm quiet">open here</span>
        {:else}
          <button class="act text-sm" onclick={() => run(() => api.openKitchen(kitchen.id))}
            >Open<span class="sr-only"> {kitchen.name}</span></button
          >
        {/if}
        {#if kitchen.demo}
          {#if asking}
            <button
              class="act border-error text-sm text-error"
              onclick={() => run(() => api.deleteDemo(kitchen.id))}>Delete the demo with its records</button
            >
            <button class="act text-sm" onclick={() => (asking = false)}>Keep</button>
          {:else}
            <button
              class="min-h-10 cursor-pointer rounded px-2 text-sm quiet hover:bg-base-200"
              onclick={() => (asking = true)}>Delete demo</button
            >
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
  {#if problem}<p role="alert" class="mt-2 text-error">{problem}</p>{/if}
  <div class="mt-3 flex flex-wrap gap-3">
    <a class="act" href="/first">Set up a kitchen of your own</a>
    <a class="act" href={session.person && session.may("owner") ? "/people" : "/account"}
      >People and accounts</a
    >
    <a class="act" href="/kitchen/archive">Save or bring in a whole kitchen</a>
    {#if !kitchens.demo}
      <button class="act" onclick={() => run(() => api.lookRound())}>Look round the demo kitchen</button>
    {/if}
  </div>
</section>
