<!-- The finished piece afterwards: kept hot, cooled, warmed up again, beside the published limits. -->
<script lang="ts">
  import { api, ProblemError, type AfterLine, type Formula } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  let { formula }: { formula: Formula } = $props();
  let told = $state.raw<{ of: Formula; lines?: AfterLine[]; problem?: string } | null>(null);
  const shown = $derived(told?.of === formula ? told : null);

  async function ask(): Promise<void> {
    const of = formula;
    try {
      told = { of, lines: await api.heatAfter(of) };
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      told = { of, problem: error.problem.detail };
    }
  }
</script>

<section aria-label="Afterwards">
  <h2 class="text-base">Afterwards</h2>
  <p class="text-[0.8125rem] leading-snug quiet">Kept hot, cooled for later, warmed up again.</p>
  {#if shown?.lines}
    <ul class="mt-2 flex flex-col gap-2.5">
      {#each shown.lines as line (line.key)}
        <li class="text-[0.9375rem] leading-snug">
          <span class={["font-semibold", line.within ? "text-success" : "text-error"]}
            >{line.within ? "Within the limit." : "Past the limit."}</span
          >
          <Say text={line.message} />
          <span class="block text-[0.8125rem] quiet"><Say text={line.limit} /></span>
        </li>
      {/each}
    </ul>
  {:else}<button class="mt-2 act" onclick={ask}>Reckon it</button>{/if}
  {#if shown?.problem}<p role="alert" class="mt-1 text-error">{shown.problem}</p>{/if}
</section>
