<!-- A type as rows of fields; what it is made of opens in its place. -->
<script lang="ts">
  import TypeRows from "./TypeRows.svelte";
  import { bounds, named, words, type Schema } from "./contract";

  interface Props {
    schema: Schema;
    types: Record<string, Schema>;
    /** Types that are open around it: one that holds itself is not opened again. */
    within?: string[];
  }
  let { schema, types, within = [] }: Props = $props();
  const fields = $derived(Object.entries(schema.properties ?? {}));
  const open = (name: string) => !within.includes(name) && types[name]?.properties !== undefined;
</script>

{#if schema.description}<p class="max-w-2xl text-[0.875rem] whitespace-pre-line">{schema.description}</p>{/if}
{#if fields.length > 0}
  <ul class="my-1 border-l-2 border-base-300 pl-3 text-[0.875rem]">
    {#each fields as [name, field] (name)}
      <li class="border-b border-base-200 py-1">
        <div class="flex flex-wrap items-baseline gap-x-2">
          <code class="font-semibold">{name}</code>
          <span>{words(field)}</span>
          {#if bounds(field)}<span class="quiet">{bounds(field)}</span>{/if}
          {#if !schema.required?.includes(name)}<span class="quiet">may be left out</span>{/if}
        </div>
        {#each named(field).filter(open) as inner (inner)}{@render type(inner)}{/each}
      </li>
    {/each}
  </ul>
{:else if named(schema).length === 0}
  <p class="text-[0.875rem]">{words(schema)} <span class="quiet">{bounds(schema)}</span></p>
{/if}
{#if fields.length === 0 && !schema.$ref && named(schema).length > 0}
  <p class="text-[0.875rem]">{words(schema)}</p>
{/if}
{#each fields.length > 0 ? [] : named(schema) as inner (inner)}
  {#if types[inner]?.properties}{@render type(inner)}
  {:else if types[inner]}<p class="text-[0.875rem]">
      <code>{inner}</code>: {words(types[inner])}
    </p>{/if}
{/each}

{#snippet type(name: string)}
  {@const found = types[name]}
  {#if found}
    <details>
      <summary class="min-h-7 cursor-pointer text-primary"><code>{name}</code></summary>
      <TypeRows schema={found} {types} within={[...within, name]} />
    </details>
  {/if}
{/snippet}
