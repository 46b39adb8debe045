<!-- A PIN by large keys, for wet hands; by the keyboard too. -->
<script lang="ts">
  interface Props {
    name: string;
    busy: boolean;
    problem: string | null;
    onpin: (pin: string) => void;
    onback: () => void;
  }
  let { name, busy, problem, onpin, onback }: Props = $props();
  const LEAST = 4;
  const MOST = 8;
  let pin = $state("");
  const put = (digit: string) => {
    if (pin.length < MOST) pin += digit;
  };
  function send(): void {
    if (pin.length < LEAST || busy) return;
    onpin(pin);
    pin = "";
  }
  function key(e: KeyboardEvent): void {
    if (/^\d$/.test(e.key)) put(e.key);
    else if (e.key === "Backspace") pin = pin.slice(0, -1);
    else if (e.key === "Enter") send();
    else return;
    e.preventDefault();
  }
  const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];
  const big =
    "min-h-16 cursor-pointer rounded-[0.25rem] border border-[#8b8f8a] bg-paper text-2xl numeral hover:bg-base-200";
</script>

<svelte:window onkeydown={key} />
<div class="w-full max-w-80">
  <p class="text-xl font-semibold">{name}</p>
  <p class="mt-2 h-9 text-3xl tracking-[0.4em]" role="status" aria-label={`${pin.length} digits`}>
    {"•".repeat(pin.length)}
  </p>
  {#if problem}<p role="alert" class="mb-2 text-error">{problem}</p>{/if}
  <div class="grid grid-cols-3 gap-2" role="group" aria-label="PIN">
    {#each KEYS as digit (digit)}<button class={big} onclick={() => put(digit)}>{digit}</button>{/each}
    <button class={[big, "text-base"]} onclick={() => (pin = pin.slice(0, -1))} aria-label="Delete a digit"
      >⌫</button
    >
    <button class={big} onclick={() => put("0")}>0</button>
    <button class="act-main min-h-16" disabled={busy || pin.length < LEAST} onclick={send}>OK</button>
  </div>
  <button class="mt-4 min-h-11 cursor-pointer text-primary underline underline-offset-3" onclick={onback}
    >Somebody else</button
  >
</div>
