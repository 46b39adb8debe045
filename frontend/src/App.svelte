<script lang="ts">
  import { Router } from "sv-router";
  import { api } from "./lib/api/client";
  import { bindKeys } from "./lib/keys";
  import { units } from "./lib/units.svelte";
  import "./router";

  $effect(() => bindKeys({ u: () => units.flip() }));
  $effect(() => {
    api.kitchen().then(
      (stored) => (units.currency = stored.kitchen.currency_code),
      () => undefined, // Each screen says for itself that the server does not answer.
    );
  });
</script>

<Router />
