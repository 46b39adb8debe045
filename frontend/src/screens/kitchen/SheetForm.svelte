<!-- The form of a thing in the kitchen: its name and kind, more fields, what was refused, keep or archive. -->
<script lang="ts" generics="Kind extends string">
  import type { Snippet } from "svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import { refusalOf } from "../../lib/refusal";

  interface Props {
    /** The thing as it was, null for a new one, which is called ``fresh``. */
    was: { name: string } | null;
    fresh: string;
    name: string;
    kind: Kind;
    kinds: readonly Kind[];
    problem: string | null;
    onclose: () => void;
    /** Reads what was typed and saves it; a refusal of the core is shown here. */
    onkeep: () => Promise<void>;
    onputaway: () => Promise<void>;
    children: Snippet;
  }
  let {
    was,
    fresh,
    name = $bindable(),
    kind = $bindable(),
    kinds,
    problem,
    onclose,
    onkeep,
    onputaway,
    children,
  }: Props = $props();
  let refused = $state<string | null>(null);

  async function attempt(run: () => Promise<void>): Promise<void> {
    refused = null;
    refused = (await refusalOf(run)) ?? refused;
  }
</script>

<Sheet open title={was ? `Edit ${was.name}` : fresh} {onclose}>
  <form
    class="flex flex-wrap items-start gap-x-4 gap-y-3.5"
    onsubmit={(event) => {
      event.preventDefault();
      void attempt(onkeep);
    }}
  >
    <TextField label="Name" width="16rem" value={name} oninput={(t) => (name = t)} />
    <PickField
      label="Kind"
      width="9rem"
      value={kind}
      options={kinds.map((key) => ({ key, title: key }))}
      onpick={(key) => (kind = key as Kind)}
    />
    {@render children()}
    {#if refused ?? problem}<p role="alert" class="w-full text-error">{refused ?? problem}</p>{/if}
    <div class="flex w-full flex-wrap gap-3">
      <button class="act-main">Save</button>
      {#if was}<button type="button" class="act" onclick={() => attempt(onputaway)}>Archive</button>{/if}
    </div>
  </form>
</Sheet>
