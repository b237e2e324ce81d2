import { useState, type CSSProperties } from 'react';
import { flushSync } from 'react-dom';
import { useDraft } from './useDraft';
import { FormProblem, Field, Input, Label } from './controls';

interface Props {
  readonly label: string;
  readonly value: string;
  /** Takes the text over; gives what was expected, or a whole sentence, where it does not fit. */
  readonly commit: (text: string) => string | null;
  readonly placeholder?: string;
  readonly numeric?: boolean;
  /** The label is only told, not shown: for cells. */
  readonly hideLabel?: boolean;
  readonly style?: CSSProperties;
}

/** A field that is taken over on Enter or when it is left. What does not fit stays, with what was expected. */
export function DraftField({ label, value, commit, placeholder, numeric = false, hideLabel = false, style }: Props) {
  const [text, type, drop] = useDraft(value);
  const [expected, setExpected] = useState<string | null>(null);
  const take = (): void => {
    const missing = text === value ? null : commit(text);
    setExpected(missing);
    // What was taken over is the value now; kept as a draft, it would come back when the edit is undone.
    if (missing === null) drop();
  };
  const undo = (): void => {
    setExpected(null);
    drop();
  };
  return (
    <Field
      value={text}
      onChange={type}
      isInvalid={expected !== null}
      style={style ?? {}}
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Input
        {...(placeholder === undefined ? {} : { placeholder })}
        inputMode={numeric ? 'decimal' : 'text'}
        onBlur={take}
        onKeyDown={(e) => {
          if (e.nativeEvent.isComposing) return;
          if (e.key === 'Enter') take();
          // Drawn at once: what was typed is not taken over when the field is left.
          else if (e.key === 'Escape') flushSync(undo);
        }}
      />
      {expected !== null && <FormProblem>{expected.endsWith('.') ? expected : `Expected ${expected}.`}</FormProblem>}
    </Field>
  );
}
