<!-- Something the cook does besides: its name, minutes, what it takes of hands and kitchen. -->
<script lang="ts">
  import { untrack } from "svelte";
  import { api, ProblemError, type Kitchen, type OwnTask, type TimingEdit } from "../../lib/api/client";
  import PickField from "../../lib/ui/PickField.svelte";

  interface Props {
    kitchen: Kitchen;
    /** How many there are: one more, and the form is empty again. What is refused stays in it. */
    count: number;
    /** Names of those that stand in this timetable already. */
    names: readonly string[];
    onadd: (edit: TimingEdit) => void;
  }
  let { kitchen, count, names, onadd }: Props = $props();
  let known = untrack(() => count);
  $effect(() => {
    if (count > known) {
      title = "";
      minutes = "";
    }
    known = count;
  });
  let title = $state("");
  let minutes = $state("");
  let hands = $state(true);
  let hot = $state(false);
  let surface = $state("");
  let oven = $state("180 °C");
  const places = $derived([
    { key: "", title: "Nothing" },
    ...kitchen.surfaces.map((s) => ({ key: s.key, title: s.name })),
  ]);
  const baked = $derived(kitchen.surfaces.find((s) => s.key === surface)?.kind === "oven");
  const field =
    "mt-0.5 block h-[2.625rem] rounded-[0.25rem] border border-[#8b8f8a] bg-paper px-2.5 text-base text-base-content";

  let before = $state.raw<OwnTask[]>([]);
  $effect(() => {
    // Side dishes of other formulas: without the line they are only not offered.
    api.ownTasks().then(
      (tasks) => (before = tasks),
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
      },
    );
  });
  const offered = $derived(before.filter((task) => !names.includes(task.title)));
  function again(task: OwnTask): void {
    const known = places.some((place) => place.key === task.surface);
    onadd({
      kind: "add-task",
      title: task.title,
      text: `${task.minutes} min`,
      hands: task.hands,
      hot: task.hot,
      surface: known ? task.surface : "",
      oven: task.oven_c == null ? "" : `${task.oven_c} °C`,
    });
  }

  function add(event: SubmitEvent): void {
    event.preventDefault();
    onadd({ kind: "add-task", title, text: minutes, hands, hot, surface, oven: baked ? oven : "" });
  }
</script>

<form class="mt-6 border-t-2 border-base-content pt-3" onsubmit={add} aria-label="One more task">
  <h2 class="text-lg">One more task</h2>
  <p class="text-[0.875rem] quiet">Roots, greens, the table: what stands beside this dish.</p>
  {#if offered.length > 0}
    <div class="mt-2 flex flex-wrap gap-2" role="group" aria-label="Of before">
      {#each offered as task (task.title)}<button
          type="button"
          class="act text-sm"
          onclick={() => again(task)}>{task.title}, {task.minutes} min</button
        >{/each}
    </div>
  {/if}
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <label class="block text-[0.8125rem] quiet"
      >What<input class={[field, "w-52 max-w-full"]} bind:value={title} autocomplete="off" /></label
    >
    <label class="block text-[0.8125rem] quiet"
      >How long<input
        class={[field, "w-24 numeral"]}
        bind:value={minutes}
        placeholder="25 min"
        autocomplete="off"
      /></label
    >
    <PickField label="It takes" value={surface} options={places} onpick={(key) => (surface = key)} />
    {#if baked}<label class="block text-[0.8125rem] quiet"
        >Oven at<input class={[field, "w-24 numeral"]} bind:value={oven} autocomplete="off" /></label
      >{/if}
    <label class="flex min-h-[2.625rem] items-center gap-2 text-[0.9375rem]"
      ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={hands} />A cook
      stands at it</label
    >
    <label class="flex min-h-[2.625rem] items-center gap-2 text-[0.9375rem]"
      ><input type="checkbox" class="size-5 accent-[var(--color-primary)]" bind:checked={hot} />Eaten hot</label
    >
    <button class="act h-[2.625rem]" disabled={!title.trim() || !minutes.trim()}>Add it</button>
  </div>
</form>
