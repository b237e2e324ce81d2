import { useEffect, useMemo } from 'react';
import useSWR from 'swr';
import type { Sheet, SheetCounting, SheetKind } from '../../../core/sheets';
import type { SheetHead } from '../../../workers/protocol';
import { askFiles } from '../../state/desk';
import { useShow } from '../../state/store';

/** Sheets of one kind, some or all. */
export interface ChosenSheets {
  readonly kind: SheetKind;
  readonly counting: SheetCounting;
  readonly sheets: readonly SheetHead[];
}

/** An answer of the thread that makes paper, asked for again when the show is edited. Undefined until it comes. */
function useAnswer<T>(key: readonly string[] | null, ask: () => Promise<T>): T | undefined {
  const show = useShow();
  const { data, mutate } = useSWR(key && [show.id, ...key], ask);
  useEffect(() => {
    // Of an edited show the answer may be another one.
    if (show) void mutate();
  }, [show, mutate]);
  return data;
}

/** The sheets of a kind that the show has. Undefined until the first answer. */
export const useSheetHeads = (kind: SheetKind, counting: SheetCounting): readonly SheetHead[] | undefined =>
  useAnswer(['sheets', kind, counting], () => askFiles((w) => w.sheets(kind, counting)));

/** All sheets of a kind with what stands on them, by id; undefined until they come, or while they are not `wanted`. */
export function useWholeSheets(
  kind: SheetKind,
  counting: SheetCounting,
  wanted: boolean,
): ReadonlyMap<string, Sheet> | undefined {
  const all = useAnswer(wanted ? ['whole', kind, counting] : null, () =>
    askFiles((w) => w.wholeSheets(kind, counting)),
  );
  return useMemo(() => all && new Map(all.map((s) => [s.id, s])), [all]);
}

/** What stands on a sheet; undefined until it comes, or while it is not `wanted`. */
export const useSheet = (kind: SheetKind, counting: SheetCounting, id: string, wanted: boolean): Sheet | undefined =>
  useAnswer(wanted ? ['sheet', kind, counting, id] : null, () => askFiles((w) => w.sheet(kind, counting, id))) ??
  undefined;
