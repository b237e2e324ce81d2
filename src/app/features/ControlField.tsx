import { fitsRange, valueRange, type Control, isTap } from '../../core/addressing';
import { valueWords } from '../../wording';
import { DraftField } from '../widgets/DraftField';
import { Pick } from '../widgets/Pick';

interface Props {
  readonly control: Control;
  /** Null where nothing is said of it. */
  readonly value: number | null;
  readonly onValue: (value: number | null) => void;
  readonly label?: string;
  /** A value has to be there: "as it is" is no choice. */
  readonly required?: boolean;
  readonly width?: number;
}

const NOT_SET = 'none';
/** The most options of a list that are picked by name; beyond that they are typed. */
const PICKED_OPTIONS = 40;
const TAPS_LIMIT = 64;

/** A control's value in its own words: one of a few, or a figure; of a control that is tapped, how often. */
export function ControlField({ control, value, onValue, label, required = false, width = 112 }: Props) {
  const { encoding, name } = control;
  const { low, high, step } = valueRange(encoding);
  const taps = isTap(encoding);
  if (!taps && step !== 0 && high - low < PICKED_OPTIONS) {
    const options = Array.from({ length: high - low + 1 }, (_, i) => low + i);
    return (
      <Pick
        label={label ?? name}
        width={`${width}px`}
        choices={[
          ...(required ? [] : [{ id: NOT_SET, name: 'as it is' }]),
          ...options.map((v) => ({ id: String(v), name: valueWords(control, v) })),
        ]}
        value={value === null ? NOT_SET : String(value)}
        onPick={(id) => onValue(id === NOT_SET ? null : Number(id))}
      />
    );
  }
  const commit = (text: string): string | null => {
    const typed = Number(text.replace(',', '.'));
    const empty = text.trim() === '';
    const count = Number.isInteger(typed) && typed >= 1 && typed <= TAPS_LIMIT;
    const fits = empty ? !required : taps ? count : fitsRange(encoding, typed);
    if (fits) onValue(empty ? null : typed);
    return fits ? null : taps ? `1 to ${TAPS_LIMIT}` : `${low} to ${high}`;
  };
  const unit = taps ? '' : 'unit' in encoding ? encoding.unit : '';
  return (
    <DraftField
      label={`${label ?? name}${unit === '' ? '' : `, ${unit}`}`}
      value={value === null ? '' : String(value)}
      commit={commit}
      placeholder={required ? '' : 'as it is'}
      numeric
      style={{ width }}
    />
  );
}
