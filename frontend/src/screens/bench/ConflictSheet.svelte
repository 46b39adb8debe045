<!-- Two edits of one formula met: what each changed, line by line; put together, or one of them. -->
<script lang="ts">
  import { api, type Formula, type MergedEdits } from "../../lib/api/client";
  import type { Bench } from "../../lib/bench.svelte";
  import { moment } from "../../lib/format";
  import { Resource } from "../../lib/resource.svelte";
  import Say from "../../lib/ui/Say.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import { navigate } from "../../router";

  let { bench }: { bench: Bench } = $props();
  let prefer = $state<"mine" | "theirs">("mine");
  interface Question {
    base: Formula;
    mine: Formula;
    theirs: Formula;
    prefer: "mine" | "theirs";
  }
  const asked = new Resource<Question, MergedEdits>((q, signal) =>
    api.mergeEdits(q.base, q.mine, q.theirs, q.prefer, signal),
  );
  $effect(() => {
    const [theirs, mine, base] = [bench.theirs?.formula, bench.formula, bench.base];
    if (theirs && mine && base) return asked.ask({ base, mine, theirs, prefer });
    asked.clear();
  });
  const found = $derived(asked.value?.merged ?? null);
  const problem = $derived(asked.value?.problem || null);
  const who = $derived(bench.theirs?.changed_by || "Another window");

  async function both(): Promise<void> {
    const id = await bench.keepBoth();
    if (id == null) return;
    await bench.takeTheirs();
    await navigate(`/formula/${id}/dish` as "/");
  }
</script>

{#snippet changes(title: string, lines: NonNullable<typeof found>["mine"])}
  <section aria-label={title} class="min-w-0">
    <h3 class="border-b-2 border-base-content pb-1 text-[0.9375rem] font-semibold">{title}</h3>
    <ul class="text-[0.9375rem]">
      {#each lines as line, at (at)}
        <li class="border-b border-base-300 py-1">
          <span class="block">{line.what}</span>
          <span class="numeral whitespace-normal"
            ><span class="font-normal quiet"><Say text={line.before} /> →&nbsp;</span>
            <Say text={line.after} /></span
          >
        </li>
      {:else}<li class="py-1 quiet">nothing that counts</li>{/each}
    </ul>
  </section>
{/snippet}

<Sheet open={bench.theirs != null} title="Changed by two at once" onclose={() => undefined} firm>
  <p>
    {who} saved <strong>{bench.theirs?.formula.name}</strong>
    {bench.theirs ? `on ${moment(bench.theirs.updated_at)}` : ""} while you worked on it. Nothing is lost.
  </p>
  {#if found}
    <div class="mt-4 grid grid-cols-2 gap-x-6" data-merge={asked.busy ? "asking" : "ready"}>
      {@render changes("You changed", found.mine)}
      {@render changes(bench.theirs?.changed_by ? `${who} changed` : "They changed", found.theirs)}
    </div>
    {#if found.clashes.length > 0}
      <section aria-label="Both changed" class="mt-4 border-l-4 border-warning pl-3">
        <p class="font-semibold">Both changed, each otherwise:</p>
        <ul class="text-[0.9375rem]">
          {#each found.clashes as clash, at (at)}
            <li>
              {clash.what}{#if clash.mine.text && clash.theirs.text}: yours
                <span class="numeral"><Say text={clash.mine} /></span>, theirs
                <span class="numeral"><Say text={clash.theirs} /></span>{/if}
            </li>
          {/each}
        </ul>
        <div class="mt-2">
          <Segments
            label="Of these stands"
            value={prefer}
            options={[
              { key: "mine", title: "yours" },
              { key: "theirs", title: "theirs" },
            ]}
            onpick={(key) => (prefer = key)}
          />
        </div>
      </section>
    {/if}
    {#if problem}<p role="alert" class="mt-3 text-error">
        Together they cannot be worked out: {problem}
      </p>{/if}
  {:else if asked.busy}<p class="mt-3 quiet" aria-busy="true">Comparing …</p>{/if}
  <div class="mt-5 flex flex-wrap gap-2">
    {#if found && !problem}
      <button
        class="act-main"
        disabled={asked.busy}
        onclick={() => asked.value && bench.takeMerged(asked.value.merged.formula)}>Keep both changes</button
      >
    {/if}
    <button class={found && !problem ? "act" : "act-main"} onclick={() => bench.keepMine()}>Keep mine</button>
    <button class="act" onclick={() => bench.takeTheirs()}>Take theirs</button>
    <button class="act" onclick={both}>Both: mine as a copy</button>
  </div>
</Sheet>
