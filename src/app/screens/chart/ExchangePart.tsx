import { useEffect, useState } from 'react';
import type { Cue, Show } from '../../../core/show';
import { Find, type Found } from '../../widgets/Find';
import { useApp } from '../../state/store';
import { placeables, valuesNamed, type Placeable } from './placeables';

const EXCHANGE_INPUT = 'exchange-cue';

/** What was typed on a chosen cue; a new object each time. */
export interface Typed {
  readonly text: string;
}

interface Props {
  readonly show: Show;
  readonly cues: readonly Cue[];
  /** What was typed on the chart: it goes on here. */
  readonly typed: Typed | null;
  /** It was taken over. */
  readonly onTyped: () => void;
  readonly onExchange: (does: Placeable['does']) => void;
}

/** Something else in the place of what stands at the chosen cues. */
export function ExchangePart({ show, cues, typed, onTyped, onExchange }: Props) {
  const counting = useApp((s) => s.counting);
  const [text, setText] = useState('');
  const [last, setLast] = useState<Typed | null>(null);
  if (typed !== last) {
    setLast(typed);
    if (typed) setText(typed.text);
  }
  useEffect(() => {
    if (!typed) return;
    const field = document.getElementById(EXCHANGE_INPUT) as HTMLInputElement | null;
    field?.focus();
    field?.setSelectionRange(field.value.length, field.value.length);
    onTyped();
  }, [typed, onTyped]);
  const search = (wanted: string): readonly Placeable[] => [
    ...(cues[0] ? valuesNamed(show, cues[0].action, wanted) : []),
    ...placeables(show, wanted, counting),
  ];
  const take = (found: Placeable | undefined): void => {
    if (!found) return;
    setText('');
    onExchange(found.does);
  };
  return (
    <Find
      label={cues.length === 1 ? 'Put in its place' : 'Put in their place'}
      inputId={EXCHANGE_INPUT}
      placeholder="part of a name, a preset, a value"
      text={text}
      onText={setText}
      search={(wanted): readonly Found[] => search(wanted)}
      onPick={(id) => take(search(text).find((p) => p.id === id))}
      onEnter={() => {
        if (text.trim() !== '') take(search(text)[0]);
      }}
    />
  );
}
