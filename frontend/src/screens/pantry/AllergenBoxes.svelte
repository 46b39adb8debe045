<!-- The fourteen allergens, ticked; what a label says more closely, such as "gluten (rye)", is kept. -->
<script lang="ts">
  interface Props {
    allergens: string[];
    onchange: (allergens: string[]) => void;
  }
  let { allergens, onchange }: Props = $props();
  const fourteen = [
    "gluten",
    "crustaceans",
    "egg",
    "fish",
    "peanut",
    "soy",
    "milk",
    "nuts",
    "celery",
    "mustard",
    "sesame",
    "sulphites",
    "lupin",
    "molluscs",
  ];
  const base = (name: string) => name.split(" (")[0];

  function set(name: string, on: boolean): void {
    const rest = allergens.filter((a) => base(a) !== name);
    onchange(on ? [...rest, name] : rest);
  }
</script>

<fieldset class="w-full">
  <legend class="text-[0.9375rem] font-semibold">Allergens on its label</legend>
  <div class="mt-1 flex flex-wrap gap-x-4">
    {#each fourteen as name (name)}
      <label class="flex min-h-9 cursor-pointer items-center gap-1.5"
        ><input
          type="checkbox"
          class="size-4.5 accent-[var(--color-primary)]"
          checked={allergens.some((a) => base(a) === name)}
          onchange={(e) => set(name, e.currentTarget.checked)}
        />{allergens.find((a) => base(a) === name) ?? name}</label
      >
    {/each}
  </div>
</fieldset>
