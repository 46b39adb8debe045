<!-- Everybody who may sign in: roles, invitations, and who changed what. -->
<script lang="ts">
  import { api, type AuditLine, type Invited, type PersonHere, type PersonRole } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import { refusalOf } from "../../lib/refusal";
  import { session } from "../../lib/session.svelte";
  import PickField from "../../lib/ui/PickField.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import InvitedSheet from "./InvitedSheet.svelte";
  import { ROLE_OPTIONS } from "./words";

  let everybody = $state.raw<PersonHere[] | null>(null);
  let audit = $state.raw<AuditLine[]>([]);
  let more = $state(false);
  let problem = $state<string | null>(null);
  let name = $state("");
  let role = $state<PersonRole>("cook");
  let invited = $state.raw<Invited | null>(null);
  let leaving = $state<number | null>(null);
  const PAGE = 100;

  async function run(change: () => Promise<unknown>): Promise<boolean> {
    problem = await refusalOf(async () => {
      await change();
      everybody = await api.people();
      audit = await api.audit(null);
      more = audit.length === PAGE;
    });
    leaving = null;
    return !problem;
  }
  $effect(() => void run(async () => undefined));
  async function invite(): Promise<void> {
    if (await run(async () => (invited = await api.invite(name, role)))) name = "";
  }
  const older = async () => {
    const next = await api.audit(audit.at(-1)?.id ?? null);
    audit = [...audit, ...next];
    more = next.length === PAGE;
  };
</script>

<svelte:head><title>People · Vianda</title></svelte:head>
<Shell here="Kitchen">
  <main id="main" class="mx-auto w-full max-w-5xl px-4 pt-8 pb-12 sm:px-6">
    <h1 class="border-b-2 border-base-content pb-2 text-2xl">People</h1>
    {#if problem}<p role="alert" class="mt-3 text-error">{problem}</p>{/if}
    {#if everybody}
      <ul aria-label="People">
        {#each everybody as one (one.id)}
          <li class="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 py-2">
            <span class="min-w-40 grow"
              ><span class={["text-[1.0625rem] font-semibold", one.disabled && "quiet line-through"]}
                >{one.name}</span
              >{#if one.id === session.person?.id}<span class="quiet">, you</span>{/if}{#if one.disabled}<span
                  class="block text-sm">not let in</span
                >{/if}</span
            >
            <PickField
              label={`Role of ${one.name}`}
              hideLabel
              width="8rem"
              value={one.role}
              options={ROLE_OPTIONS}
              onpick={(key) => run(() => api.changeRole(one.id, key as PersonRole))}
            />
            {#if one.id !== session.person?.id}
              <span class="flex flex-wrap gap-2">
                <button
                  class="act text-sm"
                  onclick={() => run(async () => (invited = await api.inviteAgain(one.id)))}
                  >New link<span class="sr-only"> for {one.name}</span></button
                >
                <button
                  class="act text-sm"
                  onclick={() => run(() => api.disablePerson(one.id, !one.disabled))}
                  >{one.disabled ? "Let in again" : "Let in no more"}<span class="sr-only">: {one.name}</span
                  ></button
                >
                {#if leaving === one.id}
                  <button
                    class="act border-error text-sm text-error"
                    onclick={() => run(() => api.removePerson(one.id))}
                    >Delete {one.name} and the name in records</button
                  >
                  <button class="act text-sm" onclick={() => (leaving = null)}>Keep</button>
                {:else}
                  <button
                    class="min-h-10 cursor-pointer rounded px-2 text-sm quiet hover:bg-base-200"
                    onclick={() => (leaving = one.id)}>Delete<span class="sr-only"> {one.name}</span></button
                  >
                {/if}
              </span>
            {/if}
          </li>
        {/each}
      </ul>
      <form
        class="mt-5 flex flex-wrap items-end gap-4"
        aria-label="Invite"
        onsubmit={(e) => {
          e.preventDefault();
          void invite();
        }}
      >
        <TextField
          label="Ask somebody in"
          width="14rem"
          placeholder="Name"
          value={name}
          oninput={(t) => (name = t)}
        />
        <PickField
          label="as"
          width="8rem"
          value={role}
          options={ROLE_OPTIONS}
          onpick={(key) => (role = key as PersonRole)}
        />
        <button class="act-main min-h-[2.625rem]" disabled={name.trim() === ""}>Make a link</button>
      </form>
      <section aria-label="Who changed what" class="mt-10">
        <h2 class="border-b-2 border-base-content pb-1 text-lg">Who changed what</h2>
        <ol class="text-[0.9375rem]">
          {#each audit as line (line.id)}
            <li class="grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-4 border-b border-base-300 py-1.5">
              <span class="numeral font-normal quiet">{moment(line.at)}</span>
              <span
                ><span class="font-semibold">{line.person || "nobody"}</span>
                {line.said}
                {#if !line.about.startsWith("/api/") && line.about !== line.person}<span class="text-sm quiet"
                    >{line.about}</span
                  >{/if}</span
              >
            </li>
          {/each}
        </ol>
        {#if more}<button class="mt-3 act text-sm" onclick={older}>Older ones</button>{/if}
        <p class="mt-3 max-w-2xl text-[0.875rem] quiet">
          No screen changes or deletes a line. How long they are kept is said at the kitchen's machine:
          ./start --do user audit --keep-days 400.
        </p>
      </section>
    {:else if !problem}<p class="mt-4 quiet" aria-busy="true">Loading…</p>{/if}
  </main>
</Shell>
<InvitedSheet {invited} onclose={() => (invited = null)} />
