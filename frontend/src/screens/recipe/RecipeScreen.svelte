<!-- A recipe pasted, beside what it became: its summary, what waits, each line; then it goes on the bench. -->
<script lang="ts">
  import Upload from "@lucide/svelte/icons/upload";
  import MarkedLine from "../../lib/ui/MarkedLine.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import { navigate } from "../../router";
  import { RecipeState } from "./recipe.svelte";
  import RecipeLines from "./RecipeLines.svelte";
  import WaitingLine from "./WaitingLine.svelte";

  const uid = $props.id();
  const recipe = new RecipeState();
  const read = $derived(recipe.read?.recipe);
  let file: HTMLInputElement;
  const placeholder = [
    "Night-watch meatballs",
    "Serves 6",
    "",
    "Ingredients",
    "500 g beef mince (15% fat)",
    "250 g pork mince",
    "…",
  ].join("\n");

  async function keep(): Promise<void> {
    const id = await recipe.keep();
    if (id != null) await navigate(`/formula/${id}/meat` as "/");
  }
</script>

<svelte:head><title>Recipe · Vianda</title></svelte:head>
<Shell here="Shelf">
  <main
    id="main"
    class="mx-auto grid w-full max-w-7xl gap-x-10 gap-y-6 px-4 pt-6 pb-12 sm:px-6 lg:grid-cols-[minmax(0,0.85fr)_minmax(0,1.15fr)]"
  >
    <section aria-label="The recipe">
      <div class="flex items-end justify-between gap-3">
        <h1 class="text-[1.75rem] leading-tight">A recipe of yours</h1>
        <button class="act text-sm" onclick={() => file.click()}><Upload size={16} /> Open a file</button>
        <input
          bind:this={file}
          type="file"
          accept=".txt,.json,.jsonld,text/plain,application/json,application/ld+json"
          class="sr-only"
          aria-label="Recipe file"
          onchange={() => {
            const chosen = file.files?.[0];
            if (chosen) void recipe.open(chosen);
            file.value = "";
          }}
        />
      </div>
      <label for={uid} class="mt-3 mb-1 block text-[0.8125rem] quiet"
        >Plain text, or a schema.org Recipe (JSON-LD). It stays in this kitchen.</label
      >
      <textarea
        id={uid}
        class="h-[26rem] w-full resize-y rounded-[0.25rem] border-2 border-base-content bg-paper p-3 text-[1rem] leading-snug lg:h-[34rem]"
        {placeholder}
        spellcheck="false"
        maxlength="150000"
        bind:value={() => recipe.text, (text) => recipe.write(text)}></textarea>
    </section>

    <section aria-label="What it became">
      {#if recipe.problem}<p role="alert" class="mb-3 text-error">{recipe.problem}</p>{/if}
      {#if !read}
        <p class="pt-16 text-[1.0625rem] quiet max-lg:pt-0">
          Paste a recipe, and it stands here line by line: its meats, what goes into the mix, salt, pieces and
          heat, its sauces, and what is left to settle.
        </p>
      {:else}
        <div class="flex flex-wrap items-center justify-between gap-3 border-b-2 border-base-content pb-2">
          <h2 class="text-xl">{read.name}</h2>
          <button class="act-main" disabled={recipe.busy || !read.formula} onclick={keep}
            >Put it on the bench</button
          >
        </div>
        <div class="mt-3">
          <MarkedLine
            text={read.line}
            pieces={read.pieces}
            label="The recipe in one line"
            stale={recipe.asking}
            onreplace={(line) => recipe.correct(line)}
          />
        </div>
        {#each read.asks as ask, n (n)}
          <div class="mt-3 border-l-4 border-warning pl-3" role="group" aria-label="To settle">
            <p class="font-semibold"><Say text={ask.text} /></p>
            <div class="mt-1.5 flex flex-wrap gap-2">
              {#each ask.choices as choice, c (c)}
                <button class="act text-sm" onclick={() => recipe.correct(choice.text)}
                  ><Say text={choice.label} /></button
                >
              {/each}
            </div>
          </div>
        {/each}
        {#if recipe.waiting.length > 0}
          <section aria-label="Waiting" class="mt-4 border-t-4 border-warning bg-paper px-4 py-2 shadow-sm">
            <h3 class="pt-1 text-sm font-semibold">
              {recipe.waiting.length === 1 ? "One line waits" : `${recipe.waiting.length} lines wait`}
            </h3>
            <ul>
              {#each recipe.waiting as line (`${line.place} ${line.text}`)}
                <WaitingLine
                  {line}
                  stale={recipe.asking}
                  onsettle={(text) => recipe.rewrite(line.place, text)}
                />
              {/each}
            </ul>
          </section>
        {/if}
        {#if read.house.length > 0}
          <p class="mt-4 text-[0.9375rem]">
            Kept as house formulas: <span class="font-semibold"
              >{read.house.map((h) => h.name).join(", ")}</span
            >.
          </p>
        {/if}
        {#each read.remarks as remark, n (n)}
          <p class="mt-2 border-l-4 border-warning pl-2.5 text-[0.9375rem]"><Say text={remark} /></p>
        {/each}
        <div class="mt-3"><RecipeLines lines={read.lines} /></div>
      {/if}
    </section>
  </main>
</Shell>
