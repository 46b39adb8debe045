<!-- Import a formula file; says what it did and what it refused. -->
<script lang="ts">
  import Upload from "@lucide/svelte/icons/upload";
  import { api, ProblemError } from "../../lib/api/client";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { navigate } from "../../router";

  const LARGEST = 900_000;
  let input: HTMLInputElement;
  let said = $state<{ title: string; lines: string[]; id: number | null } | null>(null);

  async function read(): Promise<void> {
    const file = input.files?.[0];
    if (!file) return;
    // The same file may be chosen twice in a row; and this view may be gone when the answer comes.
    const size = file.size;
    const content = size > LARGEST ? "" : await file.text();
    input.value = "";
    if (size > LARGEST) {
      const line = `The file has ${(size / 1e6).toFixed(1)} MB; a formula file has at most 0.9 MB.`;
      said = { title: "That file was not taken", lines: [line], id: null };
      return;
    }
    try {
      const done = await api.importFile(JSON.parse(content));
      const lines: string[] = [];
      if (done.meats_added.length) lines.push(`New in the larder: ${done.meats_added.join(", ")}.`);
      if (done.meats_differing.length)
        lines.push(`Known here with other figures, and ours were kept: ${done.meats_differing.join(", ")}.`);
      if (done.replaced.length)
        lines.push(`Not in this kitchen, so ours took its place: ${done.replaced.join(", ")}.`);
      lines.push(...done.renamed);
      if (lines.length === 0) await navigate(`/formula/${done.stored.id}/meat` as "/");
      else said = { title: `${done.stored.formula.name} is on the shelf`, lines, id: done.stored.id };
    } catch (error) {
      const why =
        error instanceof ProblemError
          ? error.problem.detail
          : error instanceof SyntaxError
            ? `It is not JSON: ${error.message}`
            : null;
      if (why == null) throw error;
      said = { title: "That file was not taken", lines: [why], id: null };
    }
  }
</script>

<input
  bind:this={input}
  type="file"
  accept=".json,application/json"
  class="sr-only"
  id="import"
  aria-label="Formula file"
  onchange={read}
/>
<button class="act text-sm" onclick={() => input.click()}><Upload size={16} /> Import a file</button>
<Sheet open={said != null} title={said?.title ?? ""} onclose={() => (said = null)}>
  {#each said?.lines ?? [] as line, at (at)}<p class="mb-2">{line}</p>{/each}
  {#if said?.id}<a class="mt-2 act-main" href={`/formula/${said.id}/meat`}>Open it</a>{/if}
</Sheet>
