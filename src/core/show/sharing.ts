/**
 * `to`, with every part that is the same in `from` being the same object: what was kept about unchanged
 * parts stays good. Members of lists are matched by their ids, others by their places. Plain data only.
 */
export function sharing<T>(from: T, to: T): T {
  if (Object.is(from, to)) return from;
  if (Array.isArray(from) && Array.isArray(to)) return shareList(from, to) as T;
  if (isRecord(from) && isRecord(to)) return shareRecord(from, to) as T;
  return to;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function shareList(from: readonly unknown[], to: readonly unknown[]): readonly unknown[] {
  const byId = new Map(from.map((member, i) => [idOf(member) ?? i, member]));
  const made = to.map((member, i) => sharing(byId.get(idOf(member) ?? i), member));
  return made.length === from.length && made.every((member, i) => Object.is(member, from[i])) ? from : made;
}

function shareRecord(from: Readonly<Record<string, unknown>>, to: Readonly<Record<string, unknown>>) {
  const keys = Object.keys(to);
  const made = Object.fromEntries(keys.map((key) => [key, sharing(from[key], to[key])]));
  const same = keys.length === Object.keys(from).length && keys.every((key) => Object.is(made[key], from[key]));
  return same ? from : made;
}

const idOf = (member: unknown): string | undefined =>
  isRecord(member) && typeof member.id === 'string' ? member.id : undefined;
