<!-- A temperature to write down at the stove, with a thumb. -->
<script lang="ts">
  import { units } from "../../lib/units.svelte";
  import { figure } from "./reading";

  interface Props {
    /** Of what, for whoever hears the screen. */
    label: string;
    drafts: Record<string, string>;
    /** Where it stands among the drafts. */
    draft: string;
    onread: (temp: number) => void;
  }
  let { label, drafts, draft, onread }: Props = $props();
  const text = $derived(drafts[draft] ?? "");
  let wrong = $state(false);
  const unit = $derived(units.system === "us" ? "°F" : "°C");
  function write(event: SubmitEvent): void {
    event.preventDefault();
    const temp = figure(text);
    wrong = temp === null;
    if (temp === null) return;
    drafts[draft] = "";
    onread(temp);
  }
</script>

<form class="flex flex-wrap items-center gap-2" onsubmit={write}>
  <label class="flex items-center gap-1.5 text-lg"
    ><span class="sr-only">{label}, {unit}</span><input
      class="h-14 w-28 rounded border border-[#6f7d7f] bg-base-200 px-3 text-2xl numeral"
      inputmode="decimal"
      autocomplete="off"
      bind:value={() => text, (typed) => (drafts[draft] = typed)}
      aria-invalid={wrong}
    /><span aria-hidden="true">{unit}</span></label
  >
  <button
    class="min-h-14 cursor-pointer rounded bg-base-200 px-4 text-lg font-semibold disabled:opacity-35"
    disabled={!text.trim()}>Write it down<span class="sr-only">: {label}</span></button
  >
  {#if wrong}<p role="alert" class="basis-full text-lg text-[#ffab9f]">
      Type a plain figure such as {units.system === "us" ? "160" : "71.5"}.
    </p>{/if}
</form>
