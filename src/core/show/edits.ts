/**
 * An edit is a value: what to change, and enough to change it back. Undo keeps edits, not
 * copies. A path leads through objects by key and through lists by the members' `id`.
 */
export type PathPart = string | { readonly id: string };
export type Path = readonly PathPart[];

export type Edit =
  | { readonly kind: 'set'; readonly path: Path; readonly before: unknown; readonly after: unknown }
  | { readonly kind: 'insert'; readonly path: Path; readonly index: number; readonly value: unknown }
  | { readonly kind: 'remove'; readonly path: Path; readonly index: number; readonly value: unknown }
  | { readonly kind: 'move'; readonly path: Path; readonly from: number; readonly to: number }
  | { readonly kind: 'group'; readonly edits: readonly Edit[] };

/** The document after the edit; parts that the edit does not touch stay the same objects. Throws where the path leads nowhere. */
export function applyEdit<T>(root: T, edit: Edit): T {
  switch (edit.kind) {
    case 'group':
      return edit.edits.reduce((state, e) => applyEdit(state, e), root);
    case 'set':
      return change(root, edit.path, () => edit.after);
    case 'insert':
      return change(root, edit.path, (list) => asList(list, edit.path).toSpliced(edit.index, 0, edit.value));
    case 'remove':
      return change(root, edit.path, (list) => asList(list, edit.path).toSpliced(edit.index, 1));
    case 'move':
      return change(root, edit.path, (list) => {
        const members = [...asList(list, edit.path)];
        members.splice(edit.to, 0, ...members.splice(edit.from, 1));
        return members;
      });
  }
}

/** The edit that takes this one back. */
export function invertEdit(edit: Edit): Edit {
  switch (edit.kind) {
    case 'group':
      return { kind: 'group', edits: edit.edits.toReversed().map(invertEdit) };
    case 'set':
      return { ...edit, before: edit.after, after: edit.before };
    case 'insert':
      return { ...edit, kind: 'remove' };
    case 'remove':
      return { ...edit, kind: 'insert' };
    case 'move':
      return { ...edit, from: edit.to, to: edit.from };
  }
}

/** What stands at a path. Throws where it leads nowhere. */
export const readPath = (root: unknown, path: Path): unknown =>
  path.reduce((value: unknown, step) => member(value, step, path), root);

function change<T>(root: T, path: Path, update: (value: unknown) => unknown): T {
  const walk = (value: unknown, depth: number): unknown => {
    const step = path[depth];
    if (step === undefined) return update(value);
    const inner = walk(member(value, step, path), depth + 1);
    if (typeof step === 'string') return { ...(value as Record<string, unknown>), [step]: inner };
    const list = asList(value, path);
    return list.with(indexOfId(list, step.id, path), inner);
  };
  return walk(root, 0) as T;
}

function member(value: unknown, step: PathPart, path: Path): unknown {
  if (typeof step !== 'string') {
    const list = asList(value, path);
    return list[indexOfId(list, step.id, path)];
  }
  if (typeof value !== 'object' || value === null || !Object.hasOwn(value, step)) throw lost(path);
  return (value as Record<string, unknown>)[step];
}

function indexOfId(list: readonly unknown[], id: string, path: Path): number {
  const index = list.findIndex((m) => (m as { id?: unknown } | null)?.id === id);
  if (index < 0) throw lost(path);
  return index;
}

function asList(value: unknown, path: Path): readonly unknown[] {
  if (!Array.isArray(value)) throw lost(path);
  return value as readonly unknown[];
}

function lost(path: Path): Error {
  const text = path.map((s) => (typeof s === 'string' ? s : `#${s.id}`)).join('/');
  return new Error(`an edit leads to ${text}, which is not there`);
}
