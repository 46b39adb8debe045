<script lang="ts">
  let { title, line }: { title: string; line: string } = $props();
</script>

<header class="mb-4">
  <h1 class="text-[1.5rem] leading-tight">{title}</h1>
  <p class="mt-0.5 quiet">{line}</p>
</header>
