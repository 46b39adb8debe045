<!-- Photographs of a cook: added, looked at large, captioned, removed. -->
<script lang="ts">
  import Camera from "@lucide/svelte/icons/camera";
  import { onDestroy, untrack } from "svelte";
  import { api, type Photograph } from "../../lib/api/client";
  import { Told } from "../../lib/told.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { KINDS, Photographs } from "./photographs.svelte";

  let { cook_id }: { cook_id: number } = $props();
  const album = new Photographs(untrack(() => cook_id));
  void album.read();
  onDestroy(() => album.close());

  let input: HTMLInputElement;
  let open = $state.raw<Photograph | null>(null);
  let caption = $state("");
  let sure = $state(false);
  const told = new Told();

  function show(photograph: Photograph): void {
    open = photograph;
    caption = photograph.caption;
    sure = false;
    told.problem = null;
  }

  const remove = (photograph: Photograph) =>
    told.run(async () => {
      if (!sure) {
        sure = true;
        return;
      }
      await album.remove(photograph);
      open = null;
    });

  const write = (photograph: Photograph) =>
    told.run(async () => {
      await album.caption(photograph, caption.trim());
      open = null;
    });

  function taken(): void {
    album.add([...(input.files ?? [])]);
    // The same file may be chosen twice in a row.
    input.value = "";
  }
</script>

<section aria-label="Photographs" class="border-b border-base-300 py-3">
  <ul class="flex flex-wrap items-start gap-2" aria-label="Kept photographs">
    {#each album.kept ?? [] as photograph, at (photograph.id)}
      <li class="w-28">
        <button
          class="block w-full cursor-pointer overflow-hidden rounded-[0.25rem] border border-base-300 bg-base-200 hover:border-[#8b8f8a]"
          onclick={() => show(photograph)}
          ><img
            src={api.photographPath(photograph.id, "small")}
            alt={photograph.caption || `Photograph ${at + 1}`}
            width={photograph.width}
            height={photograph.height}
            class="h-24 w-full object-cover"
            loading="lazy"
          /></button
        >
        {#if photograph.caption}<p class="mt-0.5 truncate text-[0.75rem] quiet" aria-hidden="true">
            {photograph.caption}
          </p>{/if}
      </li>
    {/each}
    <li>
      <input
        bind:this={input}
        type="file"
        multiple
        accept={KINDS.join(",")}
        class="sr-only"
        aria-label="Photograph files"
        tabindex="-1"
        onchange={taken}
      />
      <button
        class={["act", (album.kept ?? []).length > 0 ? "h-24 w-28 flex-col gap-1 text-sm" : "text-sm"]}
        onclick={() => input.click()}><Camera size={18} /> Add a photograph</button
      >
    </li>
  </ul>
  <div role="status" data-photographs={album.waiting.length > 0 ? "sending" : "kept"}>
    {#if album.waiting.length > 0}
      <p class={["mt-1.5 text-[0.875rem]", album.away ? "font-semibold text-warning" : "quiet"]}>
        {#if album.away}Not kept yet: {album.waiting.map((one) => one.name).join(", ")}. Vianda does not
          answer; it is sent as soon as it does. Leave this window open.
        {:else}Keeping {album.waiting[0]?.name}{album.waiting.length > 1
            ? ` and ${album.waiting.length - 1} more`
            : ""} …{/if}
      </p>
    {/if}
  </div>
  {#each album.refused as line, at (at)}<p role="alert" class="mt-1.5 text-[0.875rem] text-error">
      {line}
    </p>{/each}
</section>

<Sheet open={open != null} title={open?.caption || "Photograph"} onclose={() => (open = null)}>
  {#if open}
    {@const photograph = open}
    <a href={api.photographPath(photograph.id, "file")} target="_blank" rel="noopener"
      ><img
        src={api.photographPath(photograph.id, "file")}
        alt={photograph.caption || "Photograph"}
        width={photograph.width}
        height={photograph.height}
        class="max-h-[52dvh] w-full rounded-[0.25rem] bg-base-200 object-contain"
      /></a
    >
    <form
      class="mt-3"
      onsubmit={(event) => {
        event.preventDefault();
        void write(photograph);
      }}
    >
      <label class="mb-0.5 block text-[0.8125rem] quiet" for="caption">What is seen on it</label>
      <input
        id="caption"
        class="h-11 w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5"
        maxlength="120"
        placeholder="Cut through, second wave"
        autocomplete="off"
        bind:value={caption}
      />
      {#if told.problem}<p role="alert" class="mt-1.5 text-error">{told.problem}</p>{/if}
      <div class="mt-4 flex flex-wrap items-center justify-between gap-3">
        <button class="act-main">Write it down</button>
        <button type="button" class="act border-error text-error" onclick={() => remove(photograph)}
          >{sure ? "Remove it for good" : "Remove"}</button
        >
      </div>
      <p class="mt-3 text-[0.8125rem] quiet">
        Kept at {photograph.width} × {photograph.height} pixels; place, time and camera were taken out.
      </p>
    </form>
  {/if}
</Sheet>
