<!--
  One's own account: password, PIN, where it is signed in, a shift at this device; or the first owner's. Who signs out
  leaves nothing behind, but for what waits to be sent, if they want it kept.
-->
<script lang="ts">
  import { api, type Place } from "../../lib/api/client";
  import { moment } from "../../lib/format";
  import { refusalOf } from "../../lib/refusal";
  import { unsentHere } from "../../lib/ownStore";
  import { session } from "../../lib/session.svelte";
  import Sheet from "../../lib/ui/Sheet.svelte";
  import Shell from "../../lib/ui/Shell.svelte";
  import TextField from "../../lib/ui/TextField.svelte";
  import FirstOwner from "./FirstOwner.svelte";
  import SecretField from "./SecretField.svelte";

  let places = $state.raw<Place[]>([]);
  let problem = $state<string | null>(null);
  let status = $state("");
  let old = $state("");
  let fresh = $state("");
  let pin = $state("");
  let secret = $state("");
  /** What waits here to be sent, when somebody signs out who has such. */
  let waits = $state<string | null>(null);
  const person = $derived(session.person);
  const byPassword = $derived(session.state?.by === "password");

  async function run(change: () => Promise<unknown>, done = ""): Promise<boolean> {
    status = "";
    problem = await refusalOf(change);
    if (!problem) status = done;
    return !problem;
  }
  const look = () => run(async () => (places = await api.places()));
  $effect(() => {
    if (person) void look();
  });
  const counted = (n: number, one: string, many: string) => (n ? [`${n} ${n === 1 ? one : many}`] : []);
  function askToLeave(): void {
    const { drafts, others } = unsentHere();
    const found = [
      ...counted(drafts, "formula with changes", "formulas with changes"),
      ...counted(others, "list of reports, ticks or notes", "lists of reports, ticks or notes"),
    ];
    waits = found.join(" and ") || null;
    if (!waits) void leave();
  }
  async function leave(unsent = false): Promise<void> {
    if (await run(() => api.signOut())) session.leave({ unsent });
    waits = null;
  }
  async function endShift(): Promise<void> {
    await run(async () => {
      const left = await api.endShift();
      if (left.person) session.take(left);
      else session.leave();
    });
  }
  async function changePassword(): Promise<void> {
    if (
      await run(
        () => api.changePassword(old, fresh),
        "The password is changed; elsewhere you are signed out.",
      )
    ) {
      old = fresh = "";
      await look();
    }
  }
  async function setPin(): Promise<void> {
    const done = await run(
      () => api.setPin(secret, pin),
      pin ? "The PIN is set." : "There is no PIN any more.",
    );
    secret = "";
    if (!done) return;
    pin = "";
    await session.load();
  }
</script>

<svelte:head><title>{person?.name ?? "Accounts"} · Vianda</title></svelte:head>
<Shell here="Kitchen">
  <main id="main" class="mx-auto w-full max-w-4xl px-4 pt-8 pb-12 sm:px-6">
    {#if !person}<FirstOwner />
    {:else}
      <div class="flex flex-wrap items-end justify-between gap-3 border-b-2 border-base-content pb-2">
        <div>
          <h1 class="text-2xl">{person.name}</h1>
          <p class="quiet">
            {person.role}{session.state?.by === "pin" ? ", at this device for the shift" : ""}
          </p>
        </div>
        <div class="flex flex-wrap gap-2">
          {#if session.may("owner")}<a class="act" href="/people">People</a>{/if}
          <button class="act-main min-h-10" onclick={askToLeave}>Sign out</button>
        </div>
      </div>
      <p role="status" class="mt-2 min-h-6 text-[0.9375rem] text-success">{status}</p>
      {#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
      <section aria-label="Shift" class="mt-3">
        <h2 class="text-lg">A shift at this device</h2>
        {#if session.state?.shift}
          <p class="mt-1 max-w-2xl">
            This device is of a shift for up to 14 hours: whoever has a PIN takes it up. Sign out to hand it
            over.
          </p>
          <button class="mt-2 act" onclick={endShift}>End the shift here</button>
        {:else if session.may("cook")}
          <p class="mt-1 max-w-2xl quiet">
            A tablet by the stove that several people use: each signs in by name and a short PIN, until the
            shift is over.
          </p>
          <button
            class="mt-2 act"
            onclick={() => run(async () => session.take(await api.beginShift()), "The shift begins here.")}
            >Use this device for a shift</button
          >
        {/if}
      </section>
      {#if byPassword}
        <div class="mt-8 grid gap-x-12 gap-y-8 sm:grid-cols-2">
          <form
            class="grid content-start gap-3"
            onsubmit={(e) => {
              e.preventDefault();
              void changePassword();
            }}
          >
            <h2 class="text-lg">Password</h2>
            <SecretField label="Password of now" autocomplete="current-password" bind:value={old} />
            <SecretField
              label="New password"
              autocomplete="new-password"
              hint="12 signs or more."
              bind:value={fresh}
            />
            <button class="act">Change the password</button>
          </form>
          <form
            class="grid content-start gap-3"
            onsubmit={(e) => {
              e.preventDefault();
              void setPin();
            }}
          >
            <h2 class="text-lg">PIN for shifts {person.has_pin ? "" : "(none yet)"}</h2>
            <SecretField label="Your password" autocomplete="current-password" bind:value={secret} />
            <TextField
              label="New PIN; nothing for none"
              value={pin}
              width="10rem"
              hint="4 to 8 digits, neither equal nor in a row."
              oninput={(text) => (pin = text)}
            />
            <button class="act">{pin || !person.has_pin ? "Set the PIN" : "Remove the PIN"}</button>
          </form>
        </div>
      {/if}
      <section aria-label="Where you are signed in" class="mt-9">
        <h2 class="border-b-2 border-base-content pb-1 text-lg">Where you are signed in</h2>
        <ul>
          {#each places as place (place.key)}
            <li class="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-base-300 py-1">
              <span class="min-w-0 grow"
                ><span class="font-semibold">{place.device}</span>
                <span class="quiet">since {moment(place.created_at)}, seen {moment(place.seen_at)}</span
                ></span
              >
              {#if place.here}<span class="text-sm quiet">this one</span>
              {:else}<button
                  class="act text-sm"
                  onclick={async () => {
                    if (await run(() => api.endPlace(place.key), "Signed out there.")) await look();
                  }}>Sign out there</button
                >{/if}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  </main>
</Shell>
<Sheet open={waits !== null} title="Not everything is sent yet" onclose={() => (waits = null)}>
  <p>
    Not sent: {waits}. What stays here is sent when you sign in at this device and open it again; nobody else
    sees or sends it.
  </p>
  <div class="mt-4 flex flex-wrap gap-2">
    <button class="act-main" onclick={() => leave()}>Sign out and keep it here</button>
    <button class="act" onclick={() => leave(true)}>Sign out and delete it here</button>
  </div>
</Sheet>
