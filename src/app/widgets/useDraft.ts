import { useState } from 'react';

interface Draft {
  /** The value that was there when typing began. */
  readonly of: string;
  readonly text: string;
}

/**
 * What a field shows: what was typed, until the value under it changes. The third member
 * puts the value back.
 */
export function useDraft(value: string): readonly [text: string, type: (text: string) => void, drop: () => void] {
  const [draft, setDraft] = useState<Draft | null>(null);
  const text = draft?.of === value ? draft.text : value;
  return [text, (typed) => setDraft({ of: value, text: typed }), () => setDraft(null)];
}
