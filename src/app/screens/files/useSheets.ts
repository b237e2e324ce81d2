import { useEffect, useMemo } from 'react';
import useSWR from 'swr';
import type { Unprintable } from '../../../core/formats/pdf';
import type { Sheet, SheetWish } from '../../../core/sheets';
import type { SheetHead } from '../../../workers/protocol';
import { askFiles } from '../../state/desk';
import { useShow } from '../../state/store';

/** Sheets of one kind, some or all. */
export interface ChosenSheets {
  readonly wish: SheetWish;
  readonly sheets: readonly SheetHead[];
}

/** An answer of the thread that makes paper, asked for again when the show is edited. Undefined until it comes. */
function useAnswer<T>(key: readonly string[] | null, ask: () => Promise<T>): T | undefined {
  return useAsked(key, ask).data;
}

function useAsked<T>(key: readonly string[] | null, ask: () => Promise<T>) {
  const show = useShow();
  const { data, mutate, error } = useSWR<T, Error>(key && [show.id, ...key], ask);
  useEffect(() => {
    // Of an edited show the answer may be another one.
    if (show) void mutate();
  }, [show, mutate]);
  return { data, error };
}

const keyOf = ({ kind, counting, use }: SheetWish): readonly string[] => [kind, counting, use];

/** The sheets of a kind that the show has. Undefined until the first answer; what went wrong where there is none. */
export const useSheetHeads = (wish: SheetWish) =>
  useAsked<readonly SheetHead[]>(['sheets', ...keyOf(wish)], () => askFiles((w) => w.sheets(wish)));

/** All sheets of a kind with what stands on them, by id; undefined until they come, or while they are not `wanted`. */
export function useWholeSheets(wish: SheetWish, wanted: boolean): ReadonlyMap<string, Sheet> | undefined {
  const all = useAnswer(wanted ? ['whole', ...keyOf(wish)] : null, () => askFiles((w) => w.wholeSheets(wish)));
  return useMemo(() => all && new Map(all.map((s) => [s.id, s])), [all]);
}

/** What stands on a sheet; undefined until it comes, or while it is not `wanted`. */
export const useSheet = (wish: SheetWish, id: string, wanted: boolean): Sheet | undefined =>
  useAnswer(wanted ? ['sheet', ...keyOf(wish), id] : null, () => askFiles((w) => w.sheet(wish, id))) ?? undefined;

/** What of the sheets of a kind no font has letters for; nothing until that is known. */
export const useUnprintable = (wish: SheetWish): readonly Unprintable[] =>
  useAnswer(['unprintable', ...keyOf(wish)], () => askFiles((w) => w.unprintable(wish))) ?? NONE;

const NONE: readonly Unprintable[] = [];
