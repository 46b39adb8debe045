<!-- Signing in: by name and password, or at a device of a shift by PIN. -->
<script lang="ts">
  import { api, type SessionState } from "../../lib/api/client";
  import { refusalOf } from "../../lib/refusal";
  import { session } from "../../lib/session.svelte";
  import PinPad from "./PinPad.svelte";
  import SecretField from "./SecretField.svelte";

  let name = $state(session.person?.name ?? "");
  let password = $state("");
  let problem = $state<string | null>(null);
  let busy = $state(false);
  let byPassword = $state(false);
  let who = $state<number | null>(null);
  const crew = $derived(session.state?.crew ?? []);
  const shift = $derived(!byPassword && (session.state?.shift ?? false) && crew.length > 0);
  const taken = $derived(crew.find((one) => one.id === who) ?? null);

  async function go(ask: () => Promise<SessionState>): Promise<void> {
    busy = true;
    problem = await refusalOf(async () => session.take(await ask()));
    busy = false;
    password = "";
    // After five wrong PINs the shift is over here.
    if (problem && shift) await session.load();
  }
</script>

{#if shift}
  {#if taken}
    <PinPad
      name={taken.name}
      {busy}
      {problem}
      onback={() => {
        who = null;
        problem = null;
      }}
      onpin={(pin) => go(() => api.takeUp(taken.id, pin))}
    />
  {:else}
    <p class="quiet">Who are you?</p>
    {#if problem}<p role="alert" class="mt-2 text-error">{problem}</p>{/if}
    <ul class="mt-3 grid gap-2 sm:grid-cols-2">
      {#each crew as one (one.id)}
        <li>
          <button
            class="min-h-16 w-full cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-4 text-left text-xl font-semibold hover:bg-base-200"
            onclick={() => (who = one.id)}>{one.name}</button
          >
        </li>
      {/each}
    </ul>
    <button
      class="mt-4 min-h-11 cursor-pointer text-primary underline underline-offset-3"
      onclick={() => (byPassword = true)}>Sign in with a password instead</button
    >
  {/if}
{:else}
  <form
    class="grid max-w-96 gap-4"
    onsubmit={(e) => {
      e.preventDefault();
      void go(() => api.signIn(name, password));
    }}
  >
    <label class="block"
      ><span class="mb-0.5 block text-[0.8125rem] quiet">Name</span><input
        class="h-12 w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-3 text-lg"
        autocomplete="username"
        spellcheck="false"
        required
        bind:value={name}
      /></label
    >
    <SecretField label="Password" autocomplete="current-password" bind:value={password} />
    {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
    <button class="act-main" disabled={busy}>{busy ? "Signing in …" : "Sign in"}</button>
  </form>
  <p class="mt-5 max-w-96 text-[0.875rem] quiet">
    Forgotten? An owner gives you a new link, or sets the password at the kitchen's own machine: vianda user
    reset.
  </p>
{/if}
