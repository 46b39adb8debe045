<!-- The steel rail on top of every view: our mark, the rooms, the units. -->
<script lang="ts">
  import type { Snippet } from "svelte";
  import { moment } from "../format";
  import { kitchens } from "../kitchens.svelte";
  import { session } from "../session.svelte";
  import { units } from "../units.svelte";
  import Mark from "./Mark.svelte";

  let {
    here,
    tools,
    children,
    fixed = false,
    bare = false,
  }: {
    here: string;
    tools?: Snippet;
    children: Snippet;
    fixed?: boolean;
    /** On paper nothing stands above it. */
    bare?: boolean;
  } = $props();
  /** When a page is printed, as paper says it. */
  let now = $state(new Date().toISOString());
  const rooms = [
    { href: "/", title: "Shelf" },
    { href: "/larder", title: "Larder" },
    { href: "/pantry", title: "Pantry" },
    { href: "/log", title: "Logbook" },
    { href: "/kitchen", title: "Kitchen" },
  ];
</script>

<svelte:window onbeforeprint={() => (now = new Date().toISOString())} />
<a href="#main" class="absolute -top-20 left-2 z-50 act bg-paper focus:top-2 print:hidden"
  >Skip to the bench</a
>
<div class={["flex min-h-dvh flex-col", fixed && "lg:h-dvh lg:overflow-hidden"]}>
  <header
    class="flex h-11 shrink-0 items-center gap-1 bg-neutral px-2 text-neutral-content sm:gap-2 sm:px-4 print:hidden"
  >
    <a
      href="/"
      class="flex items-center gap-2 font-semibold tracking-wide sm:mr-2"
      aria-label="Vianda, to the shelf"
    >
      <Mark /><span class="hidden sm:inline">Vianda</span>
    </a>
    <nav aria-label="Rooms" class="flex">
      {#each rooms as room (room.href)}
        <a
          href={room.href}
          class={[
            "flex h-11 items-center px-1 text-[0.8125rem] whitespace-nowrap sm:px-3 sm:text-sm",
            here === room.title
              ? "border-b-3 border-[#7cc4cf] pt-[3px] font-semibold"
              : "opacity-85 hover:opacity-100",
          ]}
          aria-current={here === room.title ? "page" : undefined}>{room.title}</a
        >
      {/each}
    </nav>
    <div class="ml-auto flex items-center sm:gap-1">
      {@render tools?.()}
      {#if session.person}
        <a
          href="/account"
          class={[
            "flex h-9 max-w-32 items-center rounded px-1.5 text-sm hover:bg-white/10 max-sm:max-w-16 sm:px-2.5",
            // A bench has no room for it on a telephone; the kitchen leads there too.
            tools && "max-sm:hidden",
          ]}
          aria-label={`${session.person.name}, ${session.person.role}: your account`}
          ><span class="truncate">{session.person.name}</span></a
        >
      {/if}
      <button
        class="flex h-9 cursor-pointer items-center rounded px-1.5 text-sm font-semibold whitespace-nowrap hover:bg-white/10 sm:px-2.5"
        aria-keyshortcuts="u"
        title="Switch units (U)"
        onclick={() => units.flip()}
        ><span class="sr-only">Units:</span><span
          class={units.system === "metric" ? "" : "font-normal opacity-75 max-sm:hidden"}>g °C</span
        ><span class="mx-1 opacity-40 max-sm:hidden">/</span><span
          class={units.system === "us" ? "" : "font-normal opacity-75 max-sm:hidden"}>oz °F</span
        ></button
      >
    </div>
  </header>
  {#if !bare}<p
      class="mb-3 hidden justify-between border-b border-base-300 pb-1 text-[0.8125rem] quiet print:flex"
    >
      <span>{kitchens.current?.name ?? ""}</span><span>printed {moment(now)}</span>
    </p>{/if}
  {@render children()}
</div>
