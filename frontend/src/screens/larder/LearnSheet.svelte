<!-- What is known of a lot's fat: what was told, and the kitchen's own test; each with how rough it is. -->
<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { api, type KnownLot } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";
  import Qty from "../../lib/ui/Qty.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import FatTestForm from "./FatTestForm.svelte";
  import type { LarderRoom } from "./larder.svelte";

  let { room, known, onclose }: { room: LarderRoom; known: KnownLot; onclose: () => void } = $props();
  const sources = [
    { key: "label", title: "The label says" },
    { key: "butcher", title: "The butcher says" },
    { key: "laboratory", title: "A laboratory found" },
    { key: "fat-test", title: "I test it" },
  ] as const;
  const kinds = {
    label: "Label",
    butcher: "Butcher’s word",
    "fat-test": "Fat test",
    laboratory: "Laboratory",
  } as const;
  let source = $state<(typeof sources)[number]["key"]>("fat-test");
  let fat = $state("");

  async function learn(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const kind = source;
    if (kind === "fat-test") return;
    const done = await room.attempt(async () => {
      await api.learn(known.lot.key, kind, fat, known.revision);
    }, "Noted");
    if (done) fat = "";
  }
  const forget = (at: number) =>
    room.attempt(async () => {
      await api.forget(known.lot.key, at, known.revision);
    }, "Taken back");
</script>

<Sheet open title={`What is in ${known.lot.name}?`} {onclose}>
  <p class="text-[0.9375rem]">
    By its name <span class="numeral"
      ><Qty kind="frac" value={known.prior.low_frac} high={known.prior.high_frac} /></span
    >
    fat nine times in ten; as known now
    <strong class="numeral" data-known
      ><Qty kind="fine_frac" value={known.known.low_frac} high={known.known.high_frac} /></strong
    >, usually <span class="numeral"><Qty kind="fine_frac" value={known.known.usual_frac} /></span>.
  </p>
  {#if known.findings.length > 0}
    <ul class="mt-3 border-t border-base-300">
      {#each known.findings as finding, at (at)}
        <li class="flex items-start justify-between gap-3 border-b border-base-300 py-2">
          <div>
            <p class="font-semibold">
              {kinds[finding.evidence.kind]}:
              <span class="numeral"
                ><Qty kind="fine_frac" value={finding.evidence.fat_frac} /> ± <Qty
                  kind="fine_frac"
                  value={finding.evidence.sd_frac}
                /></span
              >
            </p>
            <p class="text-[0.8125rem] leading-snug quiet">{finding.roughness} {finding.evidence.detail}</p>
            {#if finding.disagrees}<p class="text-[0.8125rem] font-semibold text-warning">
                That is not like its name. Look again at the weighing, the label and the box.
              </p>{/if}
          </div>
          <button
            class="grid size-9 shrink-0 cursor-pointer place-items-center rounded text-quiet hover:bg-base-200"
            aria-label={`Take back: ${kinds[finding.evidence.kind]}`}
            onclick={() => forget(at)}><X size={16} /></button
          >
        </li>
      {/each}
    </ul>
    <details class="mt-1">
      <summary class="min-h-8 cursor-pointer text-[0.875rem] font-semibold text-primary"
        >The arithmetic</summary
      >
      <ol class="space-y-1 border-l-2 border-primary/40 pl-3 text-[0.875rem]">
        {#each known.working.steps as step, at (at)}<li><Say text={step} /></li>{/each}
      </ol>
      <p class="mt-1 text-[0.8125rem] quiet">{known.working.source} Weights in 1 ÷ points².</p>
    </details>
  {/if}
  <div role="radiogroup" aria-label="How you know" class="mt-4 flex flex-wrap gap-2">
    {#each sources as { key, title } (key)}
      <button
        role="radio"
        aria-checked={source === key}
        class={[
          "min-h-10 cursor-pointer rounded-[0.25rem] border px-3 font-semibold",
          source === key
            ? "border-primary bg-primary text-primary-content"
            : "border-[#8b8f8a] bg-paper hover:bg-base-200",
        ]}
        onclick={() => (source = key)}>{title}</button
      >
    {/each}
  </div>
  {#if source === "fat-test"}
    <FatTestForm {room} {known} />
  {:else}
    <form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={learn}>
      <TextField label="Fat" width="7rem" placeholder="20 %" value={fat} oninput={(t) => (fat = t)} />
      <button class="act-main min-h-[2.625rem] py-1">Note it</button>
    </form>
  {/if}
  {#if room.problem}<p role="alert" class="mt-3 text-error">{room.problem}</p>{/if}
</Sheet>
