<!-- A short typed text with its label; what was typed is read by the core. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    oninput: (text: string) => void;
    placeholder?: string;
    width?: string;
    hint?: string;
    type?: "text" | "date";
    refused?: string | null;
  }
  let {
    label,
    value,
    oninput,
    placeholder = "",
    width = "8rem",
    hint = "",
    type = "text",
    refused = null,
  }: Props = $props();
  const uid = $props.id();
</script>

<div class="min-w-0">
  <label for={uid} class="mb-0.5 block text-[0.8125rem] quiet">{label}</label>
  <input
    id={uid}
    {type}
    class={[
      "h-[2.625rem] max-w-full rounded-[0.25rem] border bg-paper px-2.5 numeral placeholder:font-normal placeholder:text-quiet",
      refused ? "border-error" : "border-[#8b8f8a]",
    ]}
    style:width
    autocomplete="off"
    spellcheck="false"
    {placeholder}
    {value}
    aria-invalid={refused ? true : undefined}
    aria-describedby={refused ? `${uid}-no` : hint ? `${uid}-hint` : undefined}
    oninput={(e) => oninput(e.currentTarget.value)}
  />
  {#if refused}<p
      id={`${uid}-no`}
      role="alert"
      class="mt-1 max-w-64 text-[0.8125rem] leading-snug text-error"
    >
      {refused}
    </p>
  {:else if hint}<p id={`${uid}-hint`} class="mt-0.5 max-w-64 text-[0.75rem] leading-tight quiet">
      {hint}
    </p>{/if}
</div>
