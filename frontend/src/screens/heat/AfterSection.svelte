<!-- The finished piece afterwards: kept hot, cooled, warmed up again, beside the published limits. -->
<script lang="ts">
  import { api, type AfterLine, type Formula } from "../../lib/api/client";
  import { Resource } from "../../lib/resource.svelte";
  import Say from "../../lib/ui/Say.svelte";

  let { formula }: { formula: Formula } = $props();
  const after = new Resource<Formula, AfterLine[]>((of, signal) => api.heatAfter(of, signal), {
    pauseMs: 250,
  });
  $effect(() => after.ask(formula));
</script>

<section aria-label="Afterwards" aria-busy={after.busy}>
  <h2 class="text-base">Afterwards</h2>
  <p class="text-[0.8125rem] leading-snug quiet">Kept hot, cooled for later, warmed up again.</p>
  {#if after.problem}
    <p role="alert" class="mt-1 text-error">{after.problem.detail}</p>
  {:else if after.value}
    <ul class="mt-2 flex flex-col gap-2.5">
      {#each after.value as line (line.key)}
        <li class="text-[0.9375rem] leading-snug">
          <span class={["font-semibold", line.within ? "text-success" : "text-error"]}
            >{line.within ? "Within the limit." : "Past the limit."}</span
          >
          <Say text={line.message} />
          <span class="block text-[0.8125rem] quiet"><Say text={line.limit} /></span>
        </li>
      {/each}
    </ul>
  {:else}<p class="mt-2 quiet">Loading…</p>{/if}
</section>
