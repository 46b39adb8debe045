<!-- A password that can be looked at while it is typed. -->
<script lang="ts">
  interface Props {
    label: string;
    value: string;
    autocomplete: "current-password" | "new-password";
    hint?: string;
  }
  let { label, value = $bindable(), autocomplete, hint = "" }: Props = $props();
  const uid = $props.id();
  let seen = $state(false);
</script>

<div>
  <label for={uid} class="mb-0.5 block text-[0.8125rem] quiet">{label}</label>
  <div class="flex">
    <input
      id={uid}
      class="h-12 min-w-0 grow rounded-l-[0.25rem] border border-r-0 border-[#8b8f8a] bg-paper px-3 text-lg"
      type={seen ? "text" : "password"}
      {autocomplete}
      spellcheck="false"
      required
      maxlength="128"
      aria-describedby={hint ? `${uid}-hint` : undefined}
      bind:value
    />
    <button
      type="button"
      class="h-12 w-16 cursor-pointer rounded-r-[0.25rem] border border-[#8b8f8a] bg-base-200 text-sm"
      aria-pressed={seen}
      aria-label={`Show ${label.toLowerCase()}`}
      onclick={() => (seen = !seen)}>{seen ? "Hide" : "Show"}</button
    >
  </div>
  {#if hint}<p id={`${uid}-hint`} class="mt-1 max-w-96 text-[0.8125rem] quiet">{hint}</p>{/if}
</div>
