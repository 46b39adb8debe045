<!-- One cause: how likely, what speaks for and against it, what helps tonight and next time. -->
<script lang="ts">
  import type { RankedCause } from "../../lib/api/client";
  import Qty from "../../lib/ui/Qty.svelte";
  import Say from "../../lib/ui/Say.svelte";

  interface Props {
    cause: RankedCause;
    place: number;
    busy: boolean;
    onmake: (cause: RankedCause) => void;
    onnote: (cause: RankedCause) => void;
  }
  let { cause, place, busy, onmake, onnote }: Props = $props();
</script>

<li class="border-b border-base-300 py-3" aria-label={cause.title}>
  <div class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4">
    <p class={place === 0 ? "text-lg font-semibold" : "font-semibold"}>{cause.title}</p>
    <p class="text-right">
      <span class="mr-2 text-[0.8125rem] quiet">{cause.word}</span><span class="numeral"
        ><Qty kind="frac" value={cause.chance} /></span
      >
    </p>
  </div>
  <div class="mt-1 h-1.5 bg-base-200" aria-hidden="true">
    <div
      class={place === 0 ? "h-full bg-primary" : "h-full bg-[#8b8f8a]"}
      style:width="{100 * cause.chance}%"
    ></div>
  </div>
  {#if cause.speaks_for.length > 0 || cause.speaks_against.length > 0}
    <ul class="mt-1.5 text-[0.875rem]">
      {#each cause.speaks_for as text, n (n)}<li>
          <span class="font-semibold text-success" aria-label="For it:">+</span>
          <Say {text} />
        </li>{/each}
      {#each cause.speaks_against as text, n (n)}<li class="quiet">
          <span class="font-semibold" aria-label="Against it:">−</span>
          <Say {text} />
        </li>{/each}
    </ul>
  {/if}
  {#if place < 3}
    <dl class="mt-1.5 grid gap-x-6 gap-y-1 text-[0.9375rem] sm:grid-cols-2">
      <div>
        <dt class="text-[0.75rem] quiet">This batch</dt>
        <dd>{cause.tonight}</dd>
      </div>
      <div>
        <dt class="text-[0.75rem] quiet">The next one</dt>
        <dd>{cause.next_time}</dd>
      </div>
    </dl>
    <div class="mt-2 flex flex-wrap gap-2">
      {#if cause.change}
        <button class={place === 0 ? "act-main" : "act text-sm"} disabled={busy} onclick={() => onmake(cause)}
          >New version: <Say text={cause.change.label} /></button
        >
      {/if}
      <button class="act text-sm" disabled={busy} onclick={() => onnote(cause)}
        >Note it for next time<span class="sr-only">: {cause.next_time}</span></button
      >
    </div>
  {/if}
</li>
