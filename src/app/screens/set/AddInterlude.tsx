import { useState } from 'react';
import { addInterlude, newInterlude } from '../../../core/show';
import { FormProblem, Soft } from '../../widgets/controls';
import { SoundFileButton } from '../../widgets/SoundFileButton';
import { newId, perform, showNow } from '../../state/desk';
import { takeSound } from '../../state/sound';
import { useShow } from '../../state/store';

interface Props {
  /** The entry that it is put behind; null for the end of the set. */
  readonly behind: string | null;
  readonly onAdded: (entryId: string) => void;
}

/** Puts a recording into the running order, between songs or before the first. */
export function AddInterlude({ behind, onAdded }: Props) {
  const { id: showId } = useShow();
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setProblem(null);
    const audioId = newId();
    const taken = await takeSound(showId, audioId, file, setSaid);
    setSaid(null);
    if ('problem' in taken) return setProblem(taken.problem);
    const show = showNow();
    const id = newId();
    if (show?.id !== showId) return;
    perform(
      addInterlude(show, newInterlude(id, audioId), taken.audio, behind),
      `add ${taken.audio.name} between songs`,
    );
    onAdded(id);
  };
  return (
    <>
      <SoundFileButton label="Sound between songs" disabled={said !== null} onFile={(file) => void take(file)} />
      {said !== null && <Soft role="status">{said}</Soft>}
      {problem !== null && <FormProblem>{problem}</FormProblem>}
    </>
  );
}
