<script lang="ts">
  import { Router } from "sv-router";
  import { bindKeys } from "./lib/keys";
  import { kitchens } from "./lib/kitchens.svelte";
  import { session } from "./lib/session.svelte";
  import Sheet from "./lib/ui/Sheet.svelte";
  import { units } from "./lib/units.svelte";
  import { route } from "./router";

  $effect(() => bindKeys({ u: () => units.flip() }));
  $effect(() => {
    void session.load();
  });
  /** Of two who share a browser, the one whose window this is wants to go on. */
  let again = $state(false);
  $effect(() => {
    if (!session.lost) again = false;
  });
  const inside = $derived(session.state !== null && !session.needed);
  // Another person may be in another kitchen: the list is fetched anew for whoever comes in.
  $effect(() => {
    if (inside) void kitchens.load();
  });
</script>

{#if route.pathname === "/join"}
  <Router />
{:else if session.needed}
  {#await import("./screens/people/SignInScreen.svelte") then { default: SignInScreen }}
    <SignInScreen />
  {/await}
{:else if kitchens.known && kitchens.list.length === 0}
  {#await import("./screens/first/FirstScreen.svelte") then { default: FirstScreen }}
    <FirstScreen />
  {/await}
{:else if kitchens.ready}
  <!-- Another kitchen is another set of records: every screen is made anew. -->
  {#key kitchens.here}
    <Router />
  {/key}
{/if}
<!-- A sign-in that ended leaves what is open as it is: who signs in again goes on with it. -->
<Sheet
  open={session.lost}
  title={session.another ? `${session.another} is signed in` : "Sign in again"}
  firm
  onclose={() => undefined}
>
  {#if session.another}
    <p class="mb-4">
      {session.another} signed in at this browser in another window. What {session.person?.name} did here is not
      sent under another name: it waits here for {session.person?.name}.
    </p>
    {#if !again}
      <div class="flex flex-wrap gap-2">
        <button class="act-main" onclick={() => session.renew()}>Go on as {session.another}</button>
        <button class="act" onclick={() => (again = true)}>Sign in as {session.person?.name}</button>
      </div>
    {/if}
  {:else}
    <p class="mb-4 quiet">
      You were signed out. What you typed stays in this window and is sent when you are back.
    </p>
  {/if}
  {#if again || !session.another}
    {#await import("./screens/people/SignIn.svelte") then { default: SignIn }}<SignIn />{/await}
  {/if}
</Sheet>
