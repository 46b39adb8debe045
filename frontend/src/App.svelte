<script lang="ts">
  import { Router } from "sv-router";
  import { bindKeys } from "./lib/keys";
  import { kitchens } from "./lib/kitchens.svelte";
  import { units } from "./lib/units.svelte";
  import "./router";

  $effect(() => bindKeys({ u: () => units.flip() }));
  $effect(() => {
    void kitchens.load();
  });
</script>

{#if kitchens.known && kitchens.list.length === 0}
  {#await import("./screens/first/FirstScreen.svelte") then { default: FirstScreen }}
    <FirstScreen />
  {/await}
{:else if kitchens.ready}
  <!-- Another kitchen is another set of records: every screen is made anew. -->
  {#key kitchens.here}
    <Router />
  {/key}
{/if}
