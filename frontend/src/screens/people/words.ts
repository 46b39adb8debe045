/** Roles in words. */
import type { PersonRole } from "../../lib/api/client";

export const ROLE_OPTIONS: { key: PersonRole; title: string }[] = [
  { key: "reader", title: "reader" },
  { key: "cook", title: "cook" },
  { key: "chef", title: "chef" },
  { key: "owner", title: "owner" },
];
