<!-- A table as a CSV file: saved, or read back with a report of each row. -->
<script lang="ts">
  import Download from "@lucide/svelte/icons/download";
  import Upload from "@lucide/svelte/icons/upload";
  import type { TableFile } from "../tableFile.svelte";

  let { file, path, name }: { file: TableFile; path: string; name: string } = $props();
  const title = $derived(`${name.charAt(0).toUpperCase()}${name.slice(1)} file`);
</script>

<a class="act" href={path} download="{name}.csv"><Download size={16} /> Save as CSV</a>
<label class="act focus-within:outline-3 focus-within:outline-primary"
  ><Upload size={16} /> Read a CSV
  <input
    type="file"
    class="sr-only"
    accept=".csv,text/csv"
    aria-label={title}
    onchange={(e) => {
      const chosen = e.currentTarget.files?.[0];
      e.currentTarget.value = "";
      if (chosen) void file.take(chosen);
    }}
  /></label
>
