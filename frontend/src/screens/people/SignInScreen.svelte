<!-- The door of a kitchen with accounts. -->
<script lang="ts">
  import Mark from "../../lib/ui/Mark.svelte";
  import SignIn from "./SignIn.svelte";
</script>

<svelte:head><title>Sign in · Vianda</title></svelte:head>
<main id="main" class="mx-auto w-full max-w-xl px-4 pt-10 pb-16 sm:px-6">
  <p class="flex items-center gap-2 font-semibold"><Mark /> Vianda</p>
  <h1 class="mt-8 mb-5 text-[1.75rem] leading-tight">Sign in</h1>
  <SignIn />
</main>
