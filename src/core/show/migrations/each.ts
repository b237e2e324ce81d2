export type Data = Record<string, unknown>;

/** Lifts the members of a list; what is no list, or no object in it, is left for the schema to refuse. */
export const each = (value: unknown, lift: (data: Data) => Data): unknown =>
  Array.isArray(value) ? value.map((m: unknown) => (isData(m) ? lift(m) : m)) : value;

/** Whether something read from a file is an object with keys. */
export const isData = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
