<!-- The path: design above, doing below. Each step with its present answer and a mark where counsel waits. -->
<script lang="ts">
  import type { Evaluation } from "../../lib/api/client";
  import Say from "../../lib/ui/Say.svelte";

  let { evaluation, id, current }: { evaluation: Evaluation; id: number; current: string } = $props();
  const marks = { limit: "crosses a limit", check: "counsel waits", note: "" } as const;
</script>

<nav
  aria-label="Steps"
  class="border-base-300 bg-base-200 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-20 max-lg:border-t lg:overflow-y-auto lg:border-r"
>
  <ol class="flex lg:flex-col lg:py-2">
    {#each evaluation.rail as step (step.step)}
      {@const here = step.step === current}
      {#if step.step === "cook"}<li
          aria-hidden="true"
          class="mx-4 my-2 hidden border-t border-base-300 lg:block"
        ></li>{/if}
      <li class="max-lg:flex-1">
        <a
          href={`/formula/${id}/${step.step}`}
          aria-current={here ? "step" : undefined}
          aria-keyshortcuts={String(step.number)}
          class={[
            "relative flex h-full gap-2 px-1 py-1.5 max-lg:flex-col max-lg:items-center max-lg:gap-0 lg:gap-3 lg:py-2 lg:pr-3 lg:pl-4",
            here ? "bg-base-100" : "hover:bg-base-100/60",
          ]}
        >
          {#if here}<span
              aria-hidden="true"
              class="absolute bg-primary max-lg:inset-x-0 max-lg:top-0 max-lg:h-1 lg:inset-y-0 lg:left-0 lg:w-1"
            ></span>{/if}
          <span
            class={[
              "w-4 shrink-0 text-center text-[1.0625rem] leading-6 numeral",
              here ? "text-primary" : "quiet",
            ]}>{step.number}</span
          >
          <span class="min-w-0">
            <span
              class={[
                "flex items-center gap-1.5 leading-6",
                here ? "font-[680]" : "font-semibold",
                "max-lg:text-[0.75rem] max-lg:leading-5 max-lg:whitespace-nowrap",
              ]}
            >
              {step.title}
              {#if step.waiting}
                <span class="sr-only">({marks[step.waiting]})</span>
                {#if step.waiting === "limit"}
                  <svg
                    viewBox="0 0 10 10"
                    class="size-2.5 text-error max-lg:absolute max-lg:top-2 max-lg:right-1.5"
                    aria-hidden="true"><path d="M5 0 10 5 5 10 0 5z" fill="currentColor" /></svg
                  >
                {:else if step.waiting === "check"}
                  <svg
                    viewBox="0 0 10 10"
                    class="size-2.5 text-warning max-lg:absolute max-lg:top-2 max-lg:right-1.5"
                    aria-hidden="true"
                    ><circle cx="5" cy="5" r="3.8" fill="none" stroke="currentColor" stroke-width="2" /></svg
                  >
                {/if}
              {/if}
            </span>
            <span class="hidden text-[0.8125rem] leading-snug quiet narrow lg:block"
              ><Say text={step.answer} /></span
            >
          </span>
        </a>
      </li>
    {/each}
  </ol>
</nav>
