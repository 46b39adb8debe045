<!-- Which test, how many tasters, and for a ranking which versions. -->
<script lang="ts">
  import { api, type TastingKind } from "../../lib/api/client";
  import { Told } from "../../lib/told.svelte";
  import Segments from "../../lib/ui/Segments.svelte";
  import { navigate } from "../../router";
  import QuickField from "../heat/QuickField.svelte";
  import { KINDS } from "./tastings";

  interface Props {
    id: number;
    pair: { before: number; after: number };
    options: { key: string; title: string }[];
  }
  let { id, pair, options }: Props = $props();
  const told = new Told();
  let kind = $state<TastingKind>("triangle");
  let tasters = $state(6);
  let picked = $state<number[] | null>(null);
  let busy = $state(false);
  const kinds = (Object.keys(KINDS) as TastingKind[]).map((key) => ({ key, title: KINDS[key].title }));
  const many = $derived(picked ?? [...new Set([pair.before, pair.after])]);
  const versions = $derived(kind === "ranking" ? many : [pair.before, pair.after]);
  const toggle = (number: number) =>
    (picked = many.includes(number) ? many.filter((n) => n !== number) : [...many, number]);
  const make = () =>
    told.run(async () => {
      if (busy) return;
      busy = true;
      try {
        const made = await api.setUpTasting(id, kind, versions, tasters);
        await navigate(`/tastings/${made.id}` as "/");
      } finally {
        busy = false;
      }
    });
</script>

<div class="mt-2 flex flex-wrap items-end gap-4">
  <Segments label="Test" options={kinds} value={kind} onpick={(key) => (kind = key)} />
  <QuickField
    label="Tasters"
    width="5rem"
    value={String(tasters)}
    oncommit={(text) => void told.read("number", text, (n) => (tasters = n))}
  />
  <button class="act-main" disabled={busy} onclick={() => void make()}>Make the sheet</button>
</div>
<p class="mt-1.5 text-[0.9375rem] quiet">{KINDS[kind].for} {KINDS[kind].asks}</p>
{#if kind === "ranking"}
  <div class="mt-2 flex flex-wrap gap-2" role="group" aria-label="Versions to rank, three to five">
    {#each options as option (option.key)}
      <button
        class="act text-sm"
        aria-pressed={many.includes(Number(option.key))}
        onclick={() => toggle(Number(option.key))}>{option.title}</button
      >
    {/each}
  </div>
{/if}
{#if told.problem}<p role="alert" class="mt-2 text-error">{told.problem}</p>{/if}
