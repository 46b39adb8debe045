/** Who is signed in. A kitchen without accounts has one cook, who may do everything. */
import { api, signedOut, type PersonRole, type SessionState } from "./api/client";
import { ProblemError } from "./api/ask";

const ROLES: PersonRole[] = ["reader", "cook", "chef", "owner"];

class SessionHere {
  state = $state.raw<SessionState | null>(null);
  /** A sign-in ended while a screen was open: who signs in again finds it as it was. */
  lost = $state(false);

  constructor() {
    signedOut.tell = () => {
      if (this.state?.person) this.lost = true;
      else void this.load();
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
    return ROLES.indexOf(this.state.person?.role ?? "reader") >= ROLES.indexOf(role);
  }

  async load(): Promise<void> {
    try {
      this.take(await api.session());
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      // The line is down: what was fetched before is shown, and the first answer says who is asked for.
      this.state ??= { accounts: false, shift: false, crew: [] };
    }
  }

  take(state: SessionState): void {
    this.state = state;
    if (state.person) this.lost = false;
  }
}

export const session = new SessionHere();
