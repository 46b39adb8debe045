<!-- The form of a thing in the kitchen: fields, what was refused, keep or put away. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import { ProblemError } from "../../lib/api/client";
  import Sheet from "../../lib/ui/Sheet.svelte";

  interface Props {
    title: string;
    known: boolean;
    problem: string | null;
    onclose: () => void;
    /** Reads what was typed and saves it; a refusal of the core is shown here. */
    onkeep: () => Promise<void>;
    onputaway: () => Promise<void>;
    children: Snippet;
  }
  let { title, known, problem, onclose, onkeep, onputaway, children }: Props = $props();
  let refused = $state<string | null>(null);

  async function attempt(run: () => Promise<void>): Promise<void> {
    refused = null;
    try {
      await run();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      refused = error.problem.detail;
    }
  }
</script>

<Sheet open {title} {onclose}>
  <form
    class="flex flex-wrap items-start gap-x-4 gap-y-3.5"
    onsubmit={(event) => {
      event.preventDefault();
      void attempt(onkeep);
    }}
  >
    {@render children()}
    {#if refused ?? problem}<p role="alert" class="w-full text-error">{refused ?? problem}</p>{/if}
    <div class="flex w-full flex-wrap gap-3">
      <button class="act-main">Save</button>
      {#if known}<button type="button" class="act" onclick={() => attempt(onputaway)}>Put it away</button
        >{/if}
    </div>
  </form>
</Sheet>
