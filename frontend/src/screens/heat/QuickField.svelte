<!-- A short text that counts when the hand leaves it or presses Enter. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    oncommit: (text: string) => void;
    placeholder?: string;
    width?: string;
    /** Its label stands beside it already: only a screen reader hears it. */
    bare?: boolean;
  }
  let { label, value, oncommit, placeholder = "", width = "6rem", bare = false }: Props = $props();
  const uid = $props.id();
  let typed = $state<string | null>(null);

  function commit(): void {
    const text = typed?.trim();
    typed = null;
    if (text !== undefined && text !== value) oncommit(text);
  }
</script>

<div class="min-w-0">
  <label for={uid} class={bare ? "sr-only" : "mb-0.5 block text-[0.8125rem] quiet"}>{label}</label>
  <input
    id={uid}
    class="h-[2.625rem] max-w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 numeral placeholder:font-normal placeholder:text-quiet"
    style:width
    autocomplete="off"
    spellcheck="false"
    {placeholder}
    value={typed ?? value}
    oninput={(e) => (typed = e.currentTarget.value)}
    onfocus={(e) => e.currentTarget.select()}
    onblur={commit}
    onkeydown={(e) => {
      if (e.key === "Enter") commit();
      else if (e.key === "Escape") typed = null;
      e.stopPropagation();
    }}
  />
</div>
