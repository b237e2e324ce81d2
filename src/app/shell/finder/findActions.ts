/** Something that can be found and done. */
export interface Action {
  readonly id: string;
  readonly name: string;
  /** What is so, where it is an answer to what was typed. */
  readonly says?: string;
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

const FOUND_LIMIT = 100;

/**
 * The actions that have all words of what is typed: those first whose name begins so, then whose name has it, so of groups
 * and within each.
 */
export function findActions(groups: readonly ActionGroup[], typed: string): readonly ActionGroup[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '');
  const rated = groups
    .map(({ name, actions }) => ({
      name,
      found: actions
        .map((action) => ({ action, rate: rateOf(action, words) }))
        .filter((r) => r.rate > 0)
        .sort((a, b) => b.rate - a.rate),
    }))
    .filter((g) => g.found.length > 0)
    .sort((a, b) => b.found[0]!.rate - a.found[0]!.rate);
  let room = FOUND_LIMIT;
  return rated.flatMap(({ name, found }) => {
    const actions = found.slice(0, room).map((r) => r.action);
    room -= actions.length;
    return actions.length === 0 ? [] : [{ name, actions }];
  });
}

function rateOf({ name, where, also }: Action, words: readonly string[]): number {
  if (words.length === 0) return 1;
  const own = name.toLowerCase();
  const all = `${own} ${where.toLowerCase()} ${also.toLowerCase()}`;
  if (!words.every((w) => all.includes(w))) return 0;
  if (own === words.join(' ')) return 5;
  const first = words[0]!;
  if (own.startsWith(first)) return 4;
  if (own.includes(` ${first}`)) return 3;
  return own.includes(first) ? 2 : 1;
}
