/** Something that can be found and done. */
export interface Action {
  readonly id: string;
  readonly name: string;
  /** Where it belongs, in a word or two. */
  readonly where: string;
  /** Other words under which one would look for it. */
  readonly also: string;
  /** The key that does it, too. */
  readonly key?: string;
  readonly run: () => void;
}

export interface ActionGroup {
  readonly name: string;
  readonly actions: readonly Action[];
}

const FOUND_LIMIT = 60;

/** The actions that have all words of what is typed, each group's best first: those whose name begins so, then whose name has it. */
export function findActions(groups: readonly ActionGroup[], typed: string): readonly ActionGroup[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '');
  let room = FOUND_LIMIT;
  return groups.flatMap(({ name, actions }) => {
    const rated = actions
      .map((action) => ({ action, rate: rateOf(action, words) }))
      .filter((r) => r.rate > 0)
      .sort((a, b) => b.rate - a.rate)
      .slice(0, room);
    room -= rated.length;
    return rated.length === 0 ? [] : [{ name, actions: rated.map((r) => r.action) }];
  });
}

function rateOf({ name, where, also }: Action, words: readonly string[]): number {
  if (words.length === 0) return 1;
  const own = name.toLowerCase();
  const all = `${own} ${where.toLowerCase()} ${also.toLowerCase()}`;
  if (!words.every((w) => all.includes(w))) return 0;
  const first = words[0]!;
  if (own.startsWith(first)) return 4;
  if (own.includes(` ${first}`)) return 3;
  return own.includes(first) ? 2 : 1;
}
