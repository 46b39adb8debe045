/** Who is signed in. A kitchen without accounts has one cook, who may do everything. */
import { api, here, signedOut, type PersonRole, type SessionState } from "./api/client";
import { ProblemError } from "./api/ask";
import { forgetOwn, keepHere } from "./ownStore";

const ROLES: PersonRole[] = ["reader", "cook", "chef", "owner"];
/** Who was signed in last, so that what was fetched opens for them, and for nobody else, while the line is down. */
const KEY = "vianda.session";

class SessionHere {
  state = $state.raw<SessionState | null>(null);
  /** A sign-in ended while a screen was open: who signs in again finds it as it was. */
  lost = $state(false);
  /** Who came in at this browser meanwhile, in another window; null for nobody. */
  another = $state<string | null>(null);
  /** Make every screen anew: whatever stands in this window is of whoever was here before. */
  renew = (): void => {
    // An invitation is used up by whoever came in by it.
    if (location.pathname === "/join") location.replace("/");
    else location.reload();
  };

  constructor() {
    signedOut.tell = (another) => {
      if (!this.state?.person) void this.load();
      else if (another) void this.#lookAgain();
      else {
        this.another = null;
        this.lost = true;
      }
    };
  }

  get person() {
    return this.state?.person ?? null;
  }
  /** Somebody has to sign in before anything is shown. */
  get needed(): boolean {
    return this.state !== null && this.state.accounts && !this.state.person;
  }
  may(role: PersonRole): boolean {
    if (!this.state?.accounts) return true;
    // A PIN does for a shift; what is an owner's takes a password.
    if (role === "owner" && this.state.by === "pin") return false;
    return ROLES.indexOf(this.state.person?.role ?? "reader") >= ROLES.indexOf(role);
  }

  async load(): Promise<void> {
    try {
      const found = await api.session();
      // What stands in this window is still of whoever opened it, until somebody signs in.
      if (this.person && !found.person) this.state = { ...found, person: this.person };
      else this.take(found);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      // The line is down: what was fetched before is shown, and the first answer says who is asked for.
      if (this.state) return;
      this.state = remembered() ?? { accounts: false, shift: false, crew: [] };
      here.person = this.person?.id ?? 0;
    }
  }

  /** Somebody came in, or was confirmed; where it is another than the one before, the window is made anew. */
  take(state: SessionState): void {
    const now = state.person?.id ?? 0;
    keepHere(KEY, state.person ? JSON.stringify(state) : null);
    if (here.person && now && here.person !== now) {
      this.renew();
      return;
    }
    here.person = now;
    this.state = state;
    this.another = null;
    if (state.person) this.lost = false;
  }

  /** Whoever was here has gone; ``unsent``: what waits here to be sent goes with them. */
  leave({ unsent = false }: { unsent?: boolean } = {}): void {
    keepHere(KEY, null);
    forgetOwn({ unsent });
    this.renew();
  }

  async #lookAgain(): Promise<void> {
    try {
      const found = await api.session();
      if (found.person?.id === here.person) return this.take(found);
      this.another = found.person?.name ?? null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
    }
    this.lost = true;
  }
}

function remembered(): SessionState | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "null") as SessionState | null;
  } catch {
    return null;
  }
}

export const session = new SessionHere();
