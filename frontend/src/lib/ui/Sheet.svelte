<!-- A sheet over the bench: focus stays inside, Escape closes. -->
<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { Dialog } from "bits-ui";
  import type { Snippet } from "svelte";

  interface Props {
    open: boolean;
    title: string;
    onclose: () => void;
    children: Snippet;
    firm?: boolean;
  }
  let { open, title, onclose, children, firm = false }: Props = $props();
</script>

<Dialog.Root {open} onOpenChange={(now) => !now && onclose()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-[#1b2327]/45" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[88dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-[0.25rem] bg-paper p-5 shadow-2xl"
      escapeKeydownBehavior={firm ? "ignore" : "close"}
      interactOutsideBehavior={firm ? "ignore" : "close"}
    >
      <div class="mb-3 flex items-start justify-between gap-4">
        <Dialog.Title class="text-xl font-semibold">{title}</Dialog.Title>
        {#if !firm}
          <Dialog.Close
            class="grid size-10 shrink-0 translate-x-1.5 -translate-y-1.5 cursor-pointer place-items-center rounded hover:bg-base-200"
            aria-label="Close"
          >
            <X size={20} />
          </Dialog.Close>
        {/if}
      </div>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
