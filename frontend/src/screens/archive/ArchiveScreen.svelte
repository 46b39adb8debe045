<!-- A whole kitchen as one file: saved, or looked at and brought in. -->
<script lang="ts">
  import Download from "@lucide/svelte/icons/download";
  import Upload from "@lucide/svelte/icons/upload";
  import { api } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { ChosenArchive } from "./archive.svelte";
  import ReportTable from "./ReportTable.svelte";

  const tables = [
    { title: "Larder", path: api.larderPath, line: "a meat a row; can be read back in the larder" },
    { title: "Pantry", path: api.pantryPath, line: "an ingredient a row; can be read back in the pantry" },
    { title: "Cooks", path: api.logbookPath({}, "csv"), line: "a cook a row: weights, scores, notes" },
    { title: "Weighings", path: api.weighingsPath, line: "a reading a row" },
  ];
  const chosen = new ChosenArchive();
  const report = $derived(chosen.looked.value);
  const sum = (of: "added" | "changed" | "skipped") => report?.parts.reduce((all, p) => all + p[of], 0) ?? 0;
  const does = $derived(
    [
      ["added", sum("added")],
      ["changed", sum("changed")],
    ]
      .filter(([, n]) => n)
      .map(([word, n]) => `${n} ${word}`)
      .join(", "),
  );
  const nothing = $derived(sum("added") + sum("changed") === 0);
  async function open(): Promise<void> {
    const id = chosen.done?.kitchen_id;
    if (id) await kitchens.change(() => api.openKitchen(id));
  }
</script>

<svelte:head><title>Kitchen as a file · Vianda</title></svelte:head>
<Shell here="Kitchen">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-8 pb-12 sm:px-6">
    <h1 class="border-b-2 border-base-content pb-2 text-2xl">A whole kitchen as one file</h1>

    <section aria-label="Save" class="mt-6">
      <h2 class="text-lg">Save {kitchens.current?.name ?? "the kitchen"}</h2>
      <p class="mt-1 max-w-2xl">
        One zip with everything that is in it: equipment, larder, lots, pantry, formulas with all their
        versions, services, cooks with photographs, weighings, checks and what was learnt. It opens in another
        Vianda, and each part is plain JSON.
      </p>
      <p class="mt-1 max-w-2xl text-[0.875rem] quiet">
        It is not encrypted. Ticks on lists of the day are not in it. A backup holds all kitchens at once;
        this is one of them, to hand on or to move.
      </p>
      <a class="mt-3 act act-main" href={api.archivePath} download><Download size={18} /> Save the archive</a>
    </section>

    <section aria-label="Bring in" class="mt-10">
      <h2 class="border-t-2 border-base-content pt-4 text-lg">Bring an archive in</h2>
      <p class="mt-1 max-w-2xl">
        You see what it would add, change and leave out before anything is done. Then all of it is brought in,
        or nothing.
      </p>
      <div class="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
        <label class="act focus-within:outline-3 focus-within:outline-primary"
          ><Upload size={18} />
          {chosen.name ? "Choose another" : "Choose an archive"}
          <input
            type="file"
            class="sr-only"
            accept=".zip,application/zip"
            aria-label="Kitchen archive"
            onchange={(e) => {
              const file = e.currentTarget.files?.[0];
              e.currentTarget.value = "";
              if (file) chosen.choose(file);
            }}
          /></label
        >
        <Segments
          label="It becomes"
          value={chosen.into}
          options={[
            { key: "new", title: "a kitchen of its own" },
            { key: "here", title: "part of this kitchen" },
          ]}
          onpick={(into) => {
            chosen.into = into;
            chosen.look();
          }}
        />
        {#if chosen.into === "here"}
          <Segments
            label="Where it differs from here"
            value={chosen.differing}
            options={[
              { key: "keep", title: "ours stays" },
              { key: "replace", title: "the file's takes its place" },
            ]}
            onpick={(differing) => {
              chosen.differing = differing;
              chosen.look();
            }}
          />
        {/if}
      </div>
      {#if chosen.into === "here" && chosen.differing === "replace"}
        <p class="mt-2 max-w-2xl text-[0.875rem] quiet">
          A formula of ours that gives way is kept as one of its versions. Cooks, weighings and checks are
          never changed.
        </p>
      {/if}
      {#if chosen.refused}<p role="alert" class="mt-3 text-error">{chosen.refused}</p>{/if}
      {#if chosen.looked.problem}
        <p role="alert" class="mt-3 max-w-2xl text-error">
          {chosen.name} cannot be brought in: {chosen.looked.problem.detail}
        </p>
      {:else if chosen.done}
        <div role="status" class="mt-4">
          <p class="text-lg font-semibold">{chosen.done.kitchen} was brought in.</p>
          <ReportTable report={chosen.done} />
          {#if chosen.done.kitchen_id !== kitchens.here}
            <button class="mt-4 act act-main" onclick={open}>Open {chosen.done.kitchen}</button>
          {:else}<a class="mt-4 act act-main" href="/">To the shelf</a>{/if}
        </div>
      {:else if chosen.looked.busy}
        <p class="mt-4 quiet" aria-busy="true">Reading {chosen.name} …</p>
      {:else if report}
        <p class="mt-5">
          <span class="font-semibold">{report.kitchen}</span>, saved
          {new Date(report.made_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
        </p>
        <ReportTable {report} />
        {#if nothing}
          <p class="mt-4">Everything in it is here already, or was left out; there is nothing to bring in.</p>
        {:else}
          <button class="mt-4 act act-main" disabled={chosen.busy} onclick={() => chosen.bring()}>
            {chosen.busy ? "Bringing it in …" : `Bring it in: ${does}`}
          </button>
        {/if}
      {/if}
    </section>

    <section aria-label="Tables" class="mt-10">
      <h2 class="border-t-2 border-base-content pt-4 text-lg">Tables, and other programs</h2>
      <ul class="mt-2">
        {#each tables as table (table.title)}
          <li class="flex min-h-10 flex-wrap items-center gap-x-3 border-b border-base-300 py-1">
            <a class="w-28 font-semibold text-primary underline underline-offset-3" href={table.path} download
              >{table.title}</a
            ><span class="text-[0.875rem] quiet">{table.line}</span>
          </li>
        {/each}
      </ul>
      <p class="mt-3">
        <a class="text-primary underline underline-offset-3" href="/kitchen/interface"
          >Interface for other programs</a
        >
      </p>
    </section>
  </main>
</Shell>
