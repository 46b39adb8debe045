<!-- One operation: what it takes, what it answers, and how it is asked from a terminal. -->
<script lang="ts">
  import TypeRows from "./TypeRows.svelte";
  import type { Operation, Schema } from "./contract";

  let { operation, types }: { operation: Operation; types: Record<string, Schema> } = $props();
  let open = $state(false);
  const taken = $derived(Object.entries(operation.requestBody?.content ?? {}));
  const answers = $derived(Object.entries(operation.responses).filter(([code]) => code.startsWith("2")));
  const problems = $derived(Object.keys(operation.responses).filter((code) => !code.startsWith("2")));
  const command = $derived.by(() => {
    const address = location.origin + operation.path;
    const type = taken[0]?.[0];
    const sends = type ? ` -H 'Content-Type: ${type}' --data @body` : "";
    return `curl${operation.method === "GET" ? "" : ` -X ${operation.method}`}${sends} '${address}'`;
  });
</script>

<li class="border-b border-base-300">
  <details bind:open>
    <summary class="grid min-h-10 cursor-pointer grid-cols-[4.5rem_1fr] items-baseline gap-x-2 py-1.5">
      <span class="font-semibold narrow">{operation.method}</span>
      <span>
        <code class="font-semibold">{operation.path}</code>
        <span class="block text-[0.875rem] quiet">{operation.summary}</span>
      </span>
    </summary>
    {#if open}
      <div class="pb-4 sm:pl-[5rem]">
        {#each operation.parameters ?? [] as parameter (parameter.name)}
          <p class="text-[0.875rem]">
            <code class="font-semibold">{parameter.name}</code> in the {parameter.in}{parameter.required
              ? ""
              : ", may be left out"}. <span class="quiet">{parameter.description ?? ""}</span>
          </p>
        {/each}
        {#each taken as [media, content] (media)}
          <h4 class="mt-2 text-[0.875rem] font-semibold">Takes {media}</h4>
          <TypeRows schema={content.schema} {types} />
        {/each}
        {#each answers as [code, answer] (code)}
          {#each Object.entries(answer.content ?? { nothing: { schema: {} } }) as [media, content] (media)}
            <h4 class="mt-2 text-[0.875rem] font-semibold">{code}: {media}</h4>
            {#if media !== "nothing"}<TypeRows schema={content.schema} {types} />{/if}
          {/each}
        {/each}
        <p class="mt-2 text-[0.875rem] quiet">Refusals: {problems.join(", ")} as application/problem+json.</p>
        <pre class="mt-2 overflow-x-auto bg-base-200 p-2 text-[0.8125rem]"><code>{command}</code></pre>
      </div>
    {/if}
  </details>
</li>
