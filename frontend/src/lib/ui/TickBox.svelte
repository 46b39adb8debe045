<!-- A box to tick on a list, as large as a knuckle, with its label beside it elsewhere. -->
<script lang="ts">
  import Check from "@lucide/svelte/icons/check";

  let { label, done, onpick }: { label: string; done: boolean; onpick: (done: boolean) => void } = $props();
</script>

<button
  role="checkbox"
  aria-checked={done}
  aria-label={label}
  class="grid min-h-11 w-12 shrink-0 cursor-pointer place-items-center rounded hover:bg-base-200"
  onclick={() => onpick(!done)}
  ><span
    class={[
      "grid size-6 place-items-center rounded-[0.2rem] border-2",
      done ? "border-primary bg-primary text-primary-content" : "border-[#6d726c] bg-paper",
    ]}
    >{#if done}<Check size={18} strokeWidth={3} aria-hidden="true" />{/if}</span
  ></button
>
