import type { Imported } from '../core/formats/smf';

const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** What was understood of a file, in a few sentences. */
export function importedWords(
  { tonesFound, tonesMade, controls, sweeps, raw, unitsMade }: Imported['report'],
  leftOut = 0,
): string {
  const parts = [
    tonesFound > 0 ? `${count(tonesFound, 'place')} where a tone of the show was recognised` : '',
    tonesMade.length > 0
      ? `${count(tonesMade.length, 'new tone')} (${tonesMade.slice(0, 4).join('; ')}${tonesMade.length > 4 ? '; …' : ''})`
      : '',
    controls > 0 ? count(controls, 'single control') : '',
    sweeps > 0 ? count(sweeps, 'sweep') : '',
    raw > 0 ? `${count(raw, 'message')} kept as ${raw === 1 ? 'it stands' : 'they stand'}` : '',
  ].filter((p) => p !== '');
  const units = unitsMade.length > 0 ? ` New in the rig: ${unitsMade.join(', ')}.` : '';
  const left =
    leftOut > 0
      ? ` ${count(leftOut, 'message')} of channels that you leave out ${leftOut === 1 ? 'stays' : 'stay'} out.`
      : '';
  return `${parts.length === 0 ? 'Nothing is sent in it.' : `Understood: ${parts.join(', ')}.`}${units}${left}`;
}
