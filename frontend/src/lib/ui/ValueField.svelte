<!-- A figure that can be typed, nudged with arrows or buttons. The core reads the text and knows the bounds. -->
<script lang="ts">
  import Minus from "@lucide/svelte/icons/minus";
  import Plus from "@lucide/svelte/icons/plus";
  import type { Amount, Edit, Figure } from "../api/client";
  import { targetOf, type Bench } from "../bench.svelte";
  import { amount } from "../format";
  import { units } from "../units.svelte";

  interface Props {
    bench: Bench;
    figure: Figure;
    item?: string;
    label: string;
    kind: Amount["kind"];
    value: number;
    hint?: string;
    bare?: boolean;
    width?: string;
  }
  let {
    bench,
    figure,
    item = "",
    label,
    kind,
    value,
    hint = "",
    bare = false,
    width = "7.5rem",
  }: Props = $props();

  const uid = $props.id();
  // A share is bounded in parts and may be shown in grams: then its bounds say nothing here.
  const bounds = $derived(bench.ranges?.[figure]);
  const range = $derived(bounds && bounds.unit.endsWith(kind.replace("fine_", "")) ? bounds : undefined);
  const shown = $derived(amount({ kind, value }, units));
  const refused = $derived(bench.refusal?.target === targetOf(figure, item) ? bench.refusal.detail : null);
  let typed = $state<string | null>(null);
  let input: HTMLInputElement;

  function send(edit: Edit): void {
    bench.edit(edit);
  }
  function commit(): void {
    const text = typed?.trim();
    typed = null;
    if (text && text !== shown) send({ kind: "type", figure, item, text });
  }
  function nudge(steps: number): void {
    typed = null;
    send({ kind: "nudge", figure, item, steps });
  }
  function key(event: KeyboardEvent): void {
    if (event.key === "Enter") {
      commit();
      input.select();
    } else if (event.key === "Escape") {
      typed = null;
      input.blur();
    } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      nudge((event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1));
    } else return;
    event.stopPropagation();
  }
</script>

<div class="min-w-0">
  {#if !bare}<label for={uid} class="mb-0.5 block text-[0.8125rem] quiet">{label}</label>{/if}
  <div
    class={[
      "flex items-stretch rounded-[0.25rem] border bg-paper focus-within:border-primary",
      refused ? "border-error" : "border-[#8b8f8a]",
    ]}
    style:width
  >
    {#if !bare}
      <button
        type="button"
        class="grid w-8 shrink-0 cursor-pointer place-items-center text-primary hover:bg-base-200"
        tabindex="-1"
        aria-label={`${label}: less`}
        onclick={() => nudge(-1)}><Minus size={16} /></button
      >
    {/if}
    <input
      bind:this={input}
      id={uid}
      class={[
        "w-full min-w-0 bg-transparent text-center numeral outline-none",
        bare ? "h-8 px-1 text-[0.95rem]" : "h-10 text-[1.0625rem]",
      ]}
      type="text"
      role="spinbutton"
      autocomplete="off"
      spellcheck="false"
      aria-label={label}
      aria-valuenow={value}
      aria-valuemin={range?.low}
      aria-valuemax={range?.high}
      aria-valuetext={shown}
      aria-invalid={refused ? true : undefined}
      aria-describedby={refused ? `${uid}-no` : undefined}
      value={typed ?? shown}
      oninput={(e) => (typed = e.currentTarget.value)}
      onfocus={(e) => e.currentTarget.select()}
      onblur={commit}
      onkeydown={key}
    />
    {#if !bare}
      <button
        type="button"
        class="grid w-8 shrink-0 cursor-pointer place-items-center text-primary hover:bg-base-200"
        tabindex="-1"
        aria-label={`${label}: more`}
        onclick={() => nudge(1)}><Plus size={16} /></button
      >
    {/if}
  </div>
  {#if refused}
    <p id={`${uid}-no`} role="alert" class="mt-1 max-w-64 text-[0.8125rem] leading-snug text-error">
      {refused}
    </p>
  {:else if hint}
    <p class="mt-0.5 text-[0.75rem] leading-tight quiet">{hint}</p>
  {/if}
</div>
