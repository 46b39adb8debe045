<!-- Import a formula or a service from its file; says what it did and what it refused. -->
<script lang="ts">
  import Upload from "@lucide/svelte/icons/upload";
  import { api, ProblemError } from "../api/client";
  import Sheet from "./Sheet.svelte";
  import { navigate } from "../../router";

  const LARGEST = 900_000;
  let input: HTMLInputElement;
  let said = $state<{ title: string; lines: string[]; path: string | null } | null>(null);

  const isService = (content: unknown) =>
    typeof content === "object" &&
    content !== null &&
    "format" in content &&
    content.format === "vianda-service";

  async function formula(content: unknown) {
    const { stored, remarks } = await api.importFile(content);
    return { name: stored.formula.name, path: `/formula/${stored.id}/meat`, lines: remarks };
  }

  async function service(content: unknown) {
    const { stored, formulas_added, remarks } = await api.importService(content);
    const added = formulas_added.length > 0 ? [`New on the shelf: ${formulas_added.join(", ")}.`] : [];
    return { name: stored.service.name, path: `/services/${stored.id}`, lines: [...added, ...remarks] };
  }

  async function read(): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    // The same file may be chosen twice in a row; and this view may be gone when the answer comes.
    const size = file.size;
    const text = size > LARGEST ? "" : await file.text();
    input.value = "";
    if (size > LARGEST) {
      const line = `The file has ${(size / 1e6).toFixed(1)} MB; a file has at most 0.9 MB.`;
      said = { title: "That file was not taken", lines: [line], path: null };
      return;
    }
    try {
      const content: unknown = JSON.parse(text);
      const { name, path, lines } = isService(content) ? await service(content) : await formula(content);
      if (lines.length === 0) await navigate(path as "/");
      else said = { title: `${name} is here`, lines, path };
    } catch (error) {
      const why =
        error instanceof ProblemError
          ? error.problem.detail
          : error instanceof SyntaxError
            ? `It is not JSON: ${error.message}`
            : null;
      if (why == null) throw error;
      said = { title: "That file was not taken", lines: [why], path: null };
    }
  }
</script>

<input
  bind:this={input}
  type="file"
  accept=".json,application/json"
  class="sr-only"
  id="import"
  aria-label="Formula or service file"
  onchange={read}
/>
<button class="act text-sm" onclick={() => input.click()}><Upload size={16} /> Import a file</button>
<Sheet open={said != null} title={said?.title ?? ""} onclose={() => (said = null)}>
  {#each said?.lines ?? [] as line, at (at)}<p class="mb-2">{line}</p>{/each}
  {#if said?.path}<a class="mt-2 act act-main" href={said.path}>Open it</a>{/if}
</Sheet>
