import { readTime, timeText, type Time } from '../../core/addressing';
import { RANGES, rangeWords } from '../../core/show';
import { timeSourceWords } from '../../wording';
import { today } from '../adapters/today';
import { DraftField } from '../widgets/DraftField';

interface Props {
  readonly label: string;
  readonly time: Time | null;
  /** What holds where nothing is typed; without it something has to be. */
  readonly otherwise?: Time;
  /** Takes the time over; gives a sentence where it cannot. */
  readonly set: (time: Time | null) => string | null;
}

/** A time as one figure or as two, typical and worst, with where it is from. */
export function TimeField({ label, time, otherwise, set }: Props) {
  const from = time ? timeSourceWords(time) : 'as usual';
  return (
    <DraftField
      label={`${label}: ${from}`}
      value={time ? timeText(time) : ''}
      {...(otherwise ? { placeholder: timeText(otherwise) } : {})}
      numeric
      commit={(text) => {
        if (text.trim() === '' && otherwise) return set(null);
        const typed = readTime(text, today());
        if (typed === null) return `${rangeWords(RANGES.unitMillis)} ms, or both figures, as in "180-210"`;
        return typed === 'below' ? 'the second figure is the worst: it cannot be below the first' : set(typed);
      }}
    />
  );
}
