/** The contract as a page shows it: operations by topic, and each type as rows of fields. */
export interface Schema {
  $ref?: string;
  type?: string;
  const?: unknown;
  enum?: unknown[];
  items?: Schema;
  prefixItems?: Schema[];
  anyOf?: Schema[];
  oneOf?: Schema[];
  additionalProperties?: boolean | Schema;
  properties?: Record<string, Schema>;
  required?: string[];
  description?: string;
  format?: string;
  pattern?: string;
  [bound: string]: unknown;
}
type Content = Record<string, { schema: Schema }>;
interface RawOperation {
  operationId: string;
  summary: string;
  parameters?: { name: string; in: string; required: boolean; description?: string; schema: Schema }[];
  requestBody?: { content: Content };
  responses: Record<string, { description: string; content?: Content }>;
}
export interface Contract {
  info: { title: string; version: string };
  paths: Record<string, Record<string, RawOperation>>;
  components: { schemas: Record<string, Schema> };
}
export interface Operation extends RawOperation {
  method: string;
  path: string;
  topic: string;
}

const METHODS = ["get", "post", "put", "delete"];

export function operations(contract: Contract): Operation[] {
  return Object.entries(contract.paths).flatMap(([path, methods]) =>
    METHODS.filter((m) => methods[m]).map((method) => ({
      ...(methods[method] as RawOperation),
      method: method.toUpperCase(),
      path,
      topic: path.split("/")[2]?.split(".")[0] ?? "",
    })),
  );
}

export const nameOf = (ref: string) => ref.split("/").at(-1) ?? "";

/** Types that a schema names, so that they can be opened. */
export function named(schema: Schema): string[] {
  const found = new Set<string>();
  const look = (s: Schema) => {
    if (s.$ref) found.add(nameOf(s.$ref));
    for (const inner of [...(s.anyOf ?? []), ...(s.oneOf ?? []), ...(s.prefixItems ?? [])]) look(inner);
    if (s.items) look(s.items);
    if (typeof s.additionalProperties === "object") look(s.additionalProperties);
  };
  look(schema);
  return [...found];
}

/** A type in a few words: text, number, list of …, one of …. */
export function words(schema: Schema): string {
  if (schema.$ref) return nameOf(schema.$ref);
  if (schema.const !== undefined) return JSON.stringify(schema.const);
  if (schema.enum) return schema.enum.map((v) => JSON.stringify(v)).join(" | ");
  const either = schema.anyOf ?? schema.oneOf;
  if (either) return either.map(words).join(" | ");
  if (schema.prefixItems) return `[${schema.prefixItems.map(words).join(", ")}]`;
  if (schema.format === "binary") return "the bytes of the file";
  if (schema.type === "array") return `list of ${schema.items ? words(schema.items) : "anything"}`;
  if (schema.type === "object" && typeof schema.additionalProperties === "object")
    return `object of ${words(schema.additionalProperties)}`;
  return (
    { string: "text", integer: "whole number", boolean: "yes or no" }[schema.type ?? ""] ??
    schema.type ??
    "anything"
  );
}

const BOUNDS: [string, string][] = [
  ["minimum", "≥"],
  ["exclusiveMinimum", ">"],
  ["maximum", "≤"],
  ["exclusiveMaximum", "<"],
  ["minLength", "letters ≥"],
  ["maxLength", "letters ≤"],
  ["minItems", "items ≥"],
  ["maxItems", "items ≤"],
  ["pattern", "fits"],
];

/** What a value must keep to. */
export function bounds(schema: Schema): string {
  const own = BOUNDS.filter(([key]) => schema[key] !== undefined).map(([key, sign]) =>
    `${sign} ${String(schema[key])}`.trim(),
  );
  const inner = (schema.anyOf ?? []).map(bounds).filter((b) => b !== "");
  return [...own, ...inner].join(", ");
}
