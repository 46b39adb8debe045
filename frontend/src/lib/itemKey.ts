/** A key from a name a cook gave: letters, digits and hyphens; empty when the name has none of them. */
export function itemKey(name: string): string {
  return name
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60);
}

/** A key that is not taken yet; `otherwise` stands in for a name without letters. */
export function freshKey(name: string, taken: readonly string[], otherwise: string): string {
  const base = itemKey(name) || otherwise;
  let key = base;
  for (let n = 2; taken.includes(key); n += 1) key = `${base.slice(0, 56)}-${n}`;
  return key;
}
