/** Roles and lines of the audit log in words. */
import type { PersonRole } from "../../lib/api/client";

export const ROLE_OPTIONS: { key: PersonRole; title: string }[] = [
  { key: "reader", title: "reader" },
  { key: "cook", title: "cook" },
  { key: "chef", title: "chef" },
  { key: "owner", title: "owner" },
];

const SAID: Record<string, string> = {
  "sign-in": "signed in",
  "sign-in-refused": "was refused at the door",
  pin: "took a device up by PIN",
  "pin-refused": "had a wrong PIN",
  begin_shift: "began a shift at a device",
  "first-owner": "made the first account",
  "invitation-accepted": "came in by an invitation",
  "added-by-hand": "was added at the machine",
  "reset-by-hand": "got a new password at the machine",
  "role-by-hand": "got another role at the machine",
  "removed-by-hand": "was removed at the machine",
  "audit-trimmed": "trimmed this log",
};

/** What was done: "save formula" of save_formula. */
export function actionWords(action: string): string {
  return SAID[action] ?? action.replaceAll("_", " ");
}
