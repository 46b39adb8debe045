<!-- The interface for other programs, readable: every operation with what it takes and answers. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { operations, type Contract } from "./contract";
  import OperationEntry from "./OperationEntry.svelte";

  const asked = new Resource<null, Contract>(async () => (await api.contract()) as Contract);
  asked.ask(null);
  let text = $state("");
  const all = $derived(asked.value ? operations(asked.value) : []);
  const shown = $derived(
    all.filter((o) =>
      text
        .toLowerCase()
        .split(/\s+/)
        .every((word) => `${o.method} ${o.path} ${o.summary}`.toLowerCase().includes(word)),
    ),
  );
  const topics = $derived([...new Set(shown.map((o) => o.topic))]);
</script>

<svelte:head><title>Interface · Vianda</title></svelte:head>
<Shell here="Kitchen">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    <h1 class="border-b-2 border-base-content pb-2 text-2xl">Interface for other programs</h1>
    <p class="mt-3 max-w-2xl">
      Every screen works through these operations, and so can a script: JSON over HTTP, grams, millimetres, °C
      and UTC, fractions from 0 to 1. The whole contract is OpenAPI 3.1:
      <a
        class="text-primary underline underline-offset-3"
        href="/api/openapi.json"
        download="vianda-openapi.json">openapi.json</a
      >. A refusal says its reason, and points to the field.
    </p>
    {#if asked.problem}<p role="alert" class="mt-4 text-error">{asked.problem.detail}</p>
    {:else if !asked.value}<p class="mt-4 quiet" aria-busy="true">Loading…</p>
    {:else}
      <div class="mt-4 flex flex-wrap items-end gap-4">
        <TextField label="Find an operation" width="16rem" value={text} oninput={(t) => (text = t)} />
        <p role="status" class="text-sm quiet">{shown.length} of {all.length}</p>
      </div>
      {#each topics as topic (topic)}
        <section aria-label={topic} class="mt-6">
          <h2 class="border-b-2 border-base-content pb-1 text-lg">{topic}</h2>
          <ul>
            {#each shown.filter((o) => o.topic === topic) as operation (operation.method + operation.path)}
              <OperationEntry {operation} types={asked.value.components.schemas} />
            {/each}
          </ul>
        </section>
      {/each}
      {#if shown.length === 0}<p class="mt-4">No operation has all of these words.</p>{/if}
    {/if}
  </main>
</Shell>
