<!-- The first visit, or another kitchen: look round the demo, or set up one's own in five answers. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { refusalOf } from "../../lib/refusal";
  import Mark from "../../lib/ui/Mark.svelte";
  import { navigate } from "../../router";
  import SetUpForm from "./SetUpForm.svelte";

  let own = $state(kitchens.list.length > 0);
  let problem = $state<string | null>(null);
  let busy = $state(false);

  async function lookRound(): Promise<void> {
    busy = true;
    problem = await refusalOf(() => kitchens.change(() => api.lookRound()));
    busy = false;
    if (!problem) await navigate("/");
  }
</script>

<svelte:head><title>Your kitchen · Vianda</title></svelte:head>
<main id="main" class="mx-auto w-full max-w-3xl px-4 pt-8 pb-16 sm:px-6">
  <p class="flex items-center gap-2 font-semibold"><Mark /> Vianda</p>
  <h1 class="mt-6 text-[1.75rem] leading-tight">
    {own
      ? "Your kitchen, in five answers"
      : "Burgers, balls, loaves and meat sauce, computed for your kitchen"}
  </h1>
  {#if !own}
    <p class="mt-2 max-w-[60ch] quiet">
      Vianda works out blends, weights and minutes from what stands in your kitchen, beside the published
      temperature floors. Nothing leaves this machine.
    </p>
    <div class="mt-6 grid gap-4 sm:grid-cols-2">
      <div class="flex flex-col border-t-4 border-primary bg-paper p-4 shadow-sm">
        <h2 class="text-lg">Set up my own kitchen</h2>
        <p class="mt-1 mb-4 flex-1 text-[0.9375rem] quiet">
          Five answers, each with a default that can stay. Everything can be changed later under Kitchen.
        </p>
        <button class="act-main" disabled={busy} onclick={() => (own = true)}>Set up my own</button>
      </div>
      <div class="flex flex-col border-t-4 border-base-300 bg-paper p-4 shadow-sm">
        <h2 class="text-lg">Look round the demo kitchen</h2>
        <p class="mt-1 mb-4 flex-1 text-[0.9375rem] quiet">
          The canteen of an invented light station, with six formulas. It stays apart from your records and
          can be deleted at any time.
        </p>
        <button class="act" disabled={busy} onclick={lookRound}>Look round</button>
      </div>
    </div>
    {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>{/if}
  {:else}
    <SetUpForm onback={kitchens.list.length > 0 ? () => navigate("/kitchen") : () => (own = false)} />
  {/if}
</main>
