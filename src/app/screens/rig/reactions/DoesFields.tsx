import { useState, type ComponentType } from 'react';
import { putReaction, type Reaction } from '../../../../core/show';
import { FormProblem } from '../../../widgets/controls';
import { Pick, choicesOf } from '../../../widgets/Pick';
import { SoundFileButton } from '../../../widgets/SoundFileButton';
import { newId, perform } from '../../../state/desk';
import { takeSound } from '../../../state/sound';
import { useShow } from '../../../state/store';
import { KIND_FIELDS } from './kindFields';
import { KINDS, MISSING, beginning, type Does } from './kinds';

const CHOICES = choicesOf(KINDS);

interface Props {
  readonly reaction: Reaction;
  readonly onChange: (does: Does) => void;
}

/** What a reaction does: of which kind, and what belongs to that. */
export function DoesFields({ reaction, onChange }: Props) {
  const show = useShow();
  const { does } = reaction;
  const [problem, setProblem] = useState<string | null>(null);
  // A sound is chosen before there is one: the first is added here.
  const [wantsSound, setWantsSound] = useState(false);
  const pick = (kind: Does['kind']): void => {
    const next = beginning(show, kind);
    setWantsSound(kind === 'sample' && !next);
    setProblem(next || kind === 'sample' ? null : (MISSING[kind] ?? null));
    if (next) onChange(next);
  };
  const take = async (file: File): Promise<void> => {
    const audioId = newId();
    const taken = await takeSound(show.id, audioId, file, () => undefined);
    if ('problem' in taken) return setProblem(taken.problem);
    setWantsSound(false);
    setProblem(null);
    const edit = putReaction(show, { ...reaction, does: { kind: 'sample', audioId, gain: 0 } }, taken.audio);
    perform(edit, `add ${taken.audio.name}`);
  };
  const kind = wantsSound ? 'sample' : does.kind;
  // The table is keyed by the same kind.
  const Fields = KIND_FIELDS[does.kind] as ComponentType<{ does: Does; onChange: Props['onChange'] }>;
  return (
    <>
      <Pick label="Kind" value={kind} choices={CHOICES} onPick={pick} />
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      {!wantsSound && <Fields does={does} onChange={onChange} />}
      {kind === 'sample' && <SoundFileButton label="Add a sound file" onFile={(file) => void take(file)} />}
    </>
  );
}
