<!-- The first account: why one would want it, and what it changes. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { refusalOf } from "../../lib/refusal";
  import { session } from "../../lib/session.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { navigate } from "../../router";
  import SecretField from "./SecretField.svelte";

  let name = $state("");
  let password = $state("");
  let problem = $state<string | null>(null);
  let busy = $state(false);
  async function make(): Promise<void> {
    busy = true;
    problem = await refusalOf(async () => session.take(await api.firstOwner(name, password)));
    busy = false;
    if (!problem) await navigate("/people");
  }
</script>

<h1 class="border-b-2 border-base-content pb-2 text-2xl">Accounts</h1>
<p class="mt-4 max-w-2xl">
  This kitchen has none: whoever sits at this machine may do everything, and nobody else gets in. With an
  owner's password everybody signs in, each under a name and with a role, and Vianda can be opened to
  telephones and tablets of the kitchen (./start --lan).
</p>
<ul class="mt-3 max-w-2xl list-disc pl-5">
  <li><b>Reader</b> looks and computes. <b>Cook</b> runs, weighs and records.</li>
  <li><b>Chef</b> changes formulas, the larder and the kitchen. <b>Owner</b> also says who comes in.</li>
</ul>
<form
  class="mt-6 grid max-w-96 gap-4"
  onsubmit={(e) => {
    e.preventDefault();
    void make();
  }}
>
  <h2 class="text-lg">The first owner</h2>
  <TextField label="Your name" value={name} width="100%" oninput={(text) => (name = text)} />
  <SecretField
    label="Password"
    autocomplete="new-password"
    hint="12 signs or more. A few unrelated words are easy to keep and hard to guess."
    bind:value={password}
  />
  {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
  <button class="act-main" disabled={busy}>Make the first account</button>
</form>
<p class="mt-4 max-w-2xl text-[0.875rem] quiet">
  A password that is lost is set anew at this machine: ./start --do user reset NAME. Removing the last account
  there takes the kitchen back to none.
</p>
