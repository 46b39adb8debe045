<!-- Whose rules lead, what the scale shows and carries, and which salt the spoons are of. -->
<script lang="ts">
  import { api, type Kitchen, type StoredKitchen } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";

  interface Props {
    kitchen: Kitchen;
    options: StoredKitchen["options"];
    onchange: (part: Partial<Kitchen>) => void;
  }
  let { kitchen, options, onchange }: Props = $props();
  let salts = $state.raw<{ key: string; title: string }[]>([]);
  let problem = $state<string | null>(null);
  const trimmed = $derived(options.trimmed_by?.find((o) => o.key === (kitchen.trimmed_by ?? "separate")));

  $effect(() => {
    api.catalogue().then(
      ({ pantry }) =>
        (salts = pantry.filter((i) => i.group === "salt").map((i) => ({ key: i.key, title: i.name }))),
      (error: Error) => (problem = error.message),
    );
  });
</script>

<section class="mt-4">
  <h2 class="text-lg">Name and money</h2>
  <div class="mt-2 mb-6 flex flex-wrap gap-x-6 gap-y-4">
    <label class="grid gap-0.5 text-[0.8125rem] quiet"
      >Name of the kitchen
      <input
        class="h-10 w-72 max-w-full rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-[1rem] text-base-content"
        maxlength="80"
        value={kitchen.name}
        onchange={(e) => onchange({ name: e.currentTarget.value.trim() || kitchen.name })}
      /></label
    >
    <label class="grid gap-0.5 text-[0.8125rem] quiet"
      >Currency (three letters)
      <input
        class="h-10 w-28 rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-[1rem] text-base-content uppercase"
        maxlength="6"
        value={kitchen.currency_code}
        onchange={(e) =>
          onchange({ currency_code: e.currentTarget.value.trim().toUpperCase() || kitchen.currency_code })}
      /></label
    >
  </div>
  <h2 class="text-lg">Rules that lead here</h2>
  <p class="text-[0.875rem] quiet">
    Country and setting decide which published floor is drawn; the others stand behind it in the working.
  </p>
  <div class="mt-3 flex flex-wrap gap-x-6 gap-y-4">
    <PickField
      label="Country"
      value={kitchen.country}
      options={options.country ?? []}
      onpick={(key) => onchange({ country: key as Kitchen["country"] })}
    />
    <PickField
      label="Setting"
      value={kitchen.setting}
      options={options.setting ?? []}
      onpick={(key) => onchange({ setting: key as Kitchen["setting"] })}
    />
    <PickField
      label="Names on a label"
      width="15rem"
      value={kitchen.naming_rule}
      options={options.naming_rule ?? []}
      onpick={(key) => onchange({ naming_rule: key as Kitchen["naming_rule"] })}
    />
  </div>
</section>
<section class="mt-7">
  <h2 class="text-lg">Scale</h2>
  <div class="mt-2 flex flex-wrap gap-x-6 gap-y-4">
    <PickField
      label="It reads in steps of"
      width="9rem"
      value={String(kitchen.scale.step_g)}
      options={options.step_g ?? []}
      onpick={(key) => onchange({ scale: { ...kitchen.scale, step_g: Number(key) } })}
    />
    <PickField
      label="It carries up to"
      width="9rem"
      value={String(kitchen.scale.capacity_g)}
      options={options.capacity_g ?? []}
      onpick={(key) => onchange({ scale: { ...kitchen.scale, capacity_g: Number(key) } })}
    />
  </div>
</section>
<section class="mt-7">
  <h2 class="text-lg">Cuts</h2>
  <p class="text-[0.875rem] quiet">
    Cuts from one knife turn out fat or lean together, so the range of a blend is wider; its mean stays.
  </p>
  <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-1">
    <PickField
      label="They are trimmed by"
      width="13rem"
      value={kitchen.trimmed_by ?? "separate"}
      options={options.trimmed_by ?? []}
      onpick={(key) => onchange({ trimmed_by: key as Kitchen["trimmed_by"] })}
    />
    <p class="pb-2.5 text-[0.875rem] quiet">{trimmed?.why ?? ""}</p>
  </div>
</section>
<section class="mt-7">
  <h2 class="text-lg">Salt</h2>
  <p class="text-[0.875rem] quiet">
    Spoons are computed in this one. A teaspoon of light flakes weighs half of one of fine salt.
  </p>
  <div class="mt-2">
    <PickField
      label="The salt by the stove"
      width="13rem"
      value={kitchen.salt ?? "salt-fine"}
      options={salts}
      onpick={(key) => onchange({ salt: key })}
      refusal={problem}
    />
  </div>
</section>
