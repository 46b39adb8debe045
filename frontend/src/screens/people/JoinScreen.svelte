<!-- Coming in by an invitation: a password, and a PIN if shifts are worked at a shared device. -->
<script lang="ts">
  import { api, ProblemError, type InvitationLooked } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { refusalOf } from "../../lib/refusal";
  import { session } from "../../lib/session.svelte";
  import Mark from "../../lib/ui/Mark.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { navigate } from "../../router";
  import SecretField from "./SecretField.svelte";

  // What stands behind the # is never sent to the server by itself, and is taken out of sight at once.
  const token = location.hash.slice(1);
  history.replaceState(null, "", location.pathname);
  let found = $state.raw<InvitationLooked | null>(null);
  let gone = $state<string | null>(null);
  let problem = $state<string | null>(null);
  let password = $state("");
  let pin = $state("");
  let busy = $state(false);
  api.lookAtInvitation(token).then(
    (looked) => (found = looked),
    (error: unknown) => {
      if (!(error instanceof ProblemError)) throw error;
      gone =
        error.problem.status === 404 || error.problem.status === 422
          ? "This invitation was used, or is older than three days. Ask the owner for another."
          : error.problem.detail;
    },
  );
  async function accept(): Promise<void> {
    busy = true;
    problem = await refusalOf(async () => session.take(await api.acceptInvitation(token, password, pin)));
    busy = false;
    if (problem) return;
    await kitchens.load();
    await navigate("/");
  }
</script>

<svelte:head><title>Come in · Vianda</title></svelte:head>
<main id="main" class="mx-auto w-full max-w-xl px-4 pt-10 pb-16 sm:px-6">
  <p class="flex items-center gap-2 font-semibold"><Mark /> Vianda</p>
  {#if gone}
    <h1 class="mt-8 text-[1.75rem] leading-tight">That link does not work any more</h1>
    <p role="alert" class="mt-3">{gone}</p>
  {:else if found}
    <h1 class="mt-8 text-[1.75rem] leading-tight">
      {found.again ? `A new password for ${found.name}` : `Welcome, ${found.name}`}
    </h1>
    {#if !found.again}<p class="mt-2 quiet">You come in as {found.role}.</p>{/if}
    <form
      class="mt-5 grid max-w-96 gap-4"
      onsubmit={(e) => {
        e.preventDefault();
        void accept();
      }}
    >
      <input type="text" class="hidden" autocomplete="username" value={found.name} readonly tabindex="-1" />
      <SecretField
        label="Password"
        autocomplete="new-password"
        hint="12 signs or more. A few unrelated words are easy to keep and hard to guess."
        bind:value={password}
      />
      <TextField
        label="PIN for a shared device, if you want one"
        value={pin}
        width="10rem"
        hint="4 to 8 digits, neither equal nor in a row."
        oninput={(text) => (pin = text)}
      />
      {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
      <button class="act-main" disabled={busy}>{busy ? "Coming in …" : "Come in"}</button>
    </form>
  {:else}<p class="mt-8 quiet" aria-busy="true">Looking at the invitation …</p>{/if}
</main>
