<script lang="ts">
  import Shell from "../lib/ui/Shell.svelte";
</script>

<svelte:head><title>Not here · Vianda</title></svelte:head>
<Shell here="">
  <main id="main" class="mx-auto max-w-xl p-8">
    <h1 class="text-2xl">There is nothing at this address</h1>
    <p class="mt-2 quiet">It may have been archived.</p>
    <a class="mt-4 act" href="/">To the shelf</a>
  </main>
</Shell>
