<!-- Five answers about a new kitchen. Each stands on an honest default: leaving it is skipping it. -->
<script lang="ts">
  import { api } from "../../lib/api/client";
  import { kitchens } from "../../lib/kitchens.svelte";
  import { refusalOf } from "../../lib/refusal";
  import Segments from "../../lib/ui/Segments.svelte";
  import { units } from "../../lib/units.svelte";
  import { navigate } from "../../router";
  import { SetUp } from "./setup.svelte";

  let { onback }: { onback: () => void } = $props();
  const uid = $props.id();
  const form = new SetUp();
  let problem = $state<string | null>(null);
  let busy = $state(false);
  const us = $derived(form.unit_system === "us");

  async function open(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    problem = await refusalOf(() => kitchens.change(() => api.setUpKitchen(form.body())));
    busy = false;
    if (problem) return;
    units.set(form.unit_system);
    await navigate("/");
  }
</script>

<form class="mt-4" onsubmit={open}>
  <fieldset class="answer">
    <legend><span class="numeral">1</span> Where do you cook?</legend>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-3">
      <label class="field"
        >Country <select class="entry" bind:value={form.country} onchange={() => form.countryChanged()}>
          <option value="other">elsewhere</option>
          <option value="US">United States</option>
          <option value="CA">Canada</option>
          <option value="UK">United Kingdom</option>
        </select></label
      >
      <Segments
        label="Setting"
        options={[
          { key: "home", title: "at home" },
          { key: "food-service", title: "food service" },
        ]}
        value={form.setting}
        onpick={(key) => (form.setting = key as typeof form.setting)}
      />
    </div>
    <p class="hint">Decides which published temperature leads, and what a label may say.</p>
  </fieldset>
  <fieldset class="answer">
    <legend><span class="numeral">2</span> Units and money</legend>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-3">
      <Segments
        label="Units"
        options={[
          { key: "metric", title: "g and °C" },
          { key: "us", title: "oz and °F" },
        ]}
        value={form.unit_system}
        onpick={(key) => (form.unit_system = key as typeof form.unit_system)}
      />
      <label class="field"
        >Currency <input
          class="entry w-24"
          maxlength="3"
          placeholder={form.currency}
          bind:value={form.currency_code}
        /></label
      >
    </div>
  </fieldset>
  <fieldset class="answer">
    <legend><span class="numeral">3</span> Your scale reads in steps of</legend>
    <Segments
      label="Scale step"
      showLabel={false}
      options={[1, 2, 5, 10].map((g) => ({ key: String(g), title: `${g} g` }))}
      value={String(form.scale_step_g)}
      onpick={(key) => (form.scale_step_g = Number(key) as typeof form.scale_step_g)}
    />
  </fieldset>
  <fieldset class="answer">
    <legend><span class="numeral">4</span> What gets hot?</legend>
    <ul class="grid gap-y-1.5">
      {#each form.things as thing (thing.kind)}
        <li class="flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1">
          <label
            class="flex min-w-40 cursor-pointer items-center gap-2.5 py-2 text-[1.0625rem] max-sm:basis-full"
          >
            <input type="checkbox" class="size-5 accent-primary" bind:checked={thing.has} />
            {thing.title}
          </label>
          {#if thing.has}
            <label class="field-row"
              >{thing.kind === "pan" ? "flat bottom, across" : "width"}
              <input
                class="entry w-24"
                placeholder={us ? thing.usual_in[0] : thing.usual_cm[0]}
                bind:value={thing.width}
              /></label
            >
            {#if thing.kind !== "pan"}
              <label class="field-row"
                >depth <input
                  class="entry w-24"
                  placeholder={us ? thing.usual_in[1] : thing.usual_cm[1]}
                  bind:value={thing.depth}
                /></label
              >
            {/if}
          {/if}
        </li>
      {/each}
    </ul>
    <p class="hint">
      Measured sizes say how many pieces lie at once. An empty size takes the usual one shown.
    </p>
  </fieldset>
  <fieldset class="answer">
    <legend><span class="numeral">5</span> Which salt stands by the stove?</legend>
    <Segments
      label="Salt"
      showLabel={false}
      options={[
        { key: "salt-fine", title: "fine" },
        { key: "salt-coarse", title: "coarse" },
        { key: "salt-flake", title: "light flakes" },
      ]}
      value={form.salt}
      onpick={(key) => (form.salt = key as typeof form.salt)}
    />
    <p class="hint">A teaspoon of flakes weighs half of one of fine salt.</p>
  </fieldset>
  <div class="mt-5">
    <label class="field" for={`${uid}-name`}>What is it called? (may stay empty)</label>
    <input
      id={`${uid}-name`}
      class="entry w-full max-w-80"
      maxlength="80"
      placeholder="My kitchen"
      bind:value={form.name}
    />
  </div>
  {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>{/if}
  <div class="mt-5 flex flex-wrap gap-3">
    <button class="act-main" disabled={busy}>Open my kitchen</button>
    <button type="button" class="act" onclick={onback}>Back</button>
  </div>
</form>

<style>
  .answer {
    margin-top: 1.25rem;
    border-top: 1px solid var(--color-base-300);
    padding-top: 0.75rem;
  }
  .answer legend {
    float: left;
    width: 100%;
    margin-bottom: 0.6rem;
    font-size: 1.0625rem;
    font-weight: 600;
  }
  .answer legend + :global(*) {
    clear: both;
  }
  .hint {
    margin-top: 0.4rem;
    font-size: 0.8125rem;
    color: var(--color-quiet);
  }
  .field {
    display: grid;
    gap: 0.15rem;
    font-size: 0.8125rem;
    color: var(--color-quiet);
  }
  .field-row {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    font-size: 0.875rem;
    color: var(--color-quiet);
  }
  .answer legend .numeral {
    margin-right: 0.4rem;
  }
  .entry {
    height: 2.625rem;
    border: 1px solid #8b8f8a;
    border-radius: 0.25rem;
    background: var(--color-paper);
    padding: 0 0.75rem;
    font-size: 1.0625rem;
    color: var(--color-base-content);
  }
</style>
