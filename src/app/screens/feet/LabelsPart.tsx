import { switchStrips } from '../../../core/sheets';
import type { Unit } from '../../../core/show';
import { PrintButton } from '../../features/PrintButton';
import { Soft } from '../../widgets/controls';
import { SwitchStrips } from '../../features/SwitchStrips';
import { useShow } from '../../state/store';
import { Unseen } from '../../widgets/shellParts';
import { ControllerPick, Say, Stack, Tools } from './parts';

/** Strips for the switches, in their true size, and what displays show. */
export function LabelsPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const { display, pitch, lights } = unit.profile.controller!;
  const parts = switchStrips(show, unit)?.parts ?? [];
  const clashes = parts.filter((p) => p.kind === 'strips' && p.rows.flat().some((l) => l.clash)).length;
  return (
    <Stack>
      <Tools>
        <ControllerPick unit={unit} part="labels" />
        <PrintButton isDisabled={parts.length === 0}>Print the strips</PrintButton>
      </Tools>
      <Soft style={{ fontSize: 14 }}>
        {pitch} mm from switch to switch: print at 100 %. What is wider than a sheet comes in pieces.{' '}
        {display.letters === 'none' || display.length === 0
          ? 'The controller has no displays.'
          : `Below each name what a display of ${display.length} letters shows.`}{' '}
        {lights ? 'A light at each switch tells on from off.' : 'No light tells on from off.'}
      </Soft>
      {parts.length === 0 && <p>No page yet: labels follow from the pages.</p>}
      {clashes > 0 && (
        <Say $wrong>
          On {clashes} {clashes === 1 ? 'page' : 'pages'} two displays show the same for different things: they are
          underlined.
        </Say>
      )}
      <Unseen as="h2">Strips</Unseen>
      {parts.map((part) => part.kind === 'strips' && <SwitchStrips key={part.name} part={part} />)}
    </Stack>
  );
}
