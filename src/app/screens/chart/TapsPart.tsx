import styled from 'styled-components';
import { isTap } from '../../../core/addressing';
import { setTaps, type Show, type Song } from '../../../core/show';
import { Check } from '../../widgets/Check';
import { newId, perform } from '../../state/desk';

const Box = styled.section`
  display: grid;
  gap: 6px;
  padding: 0 16px 16px;
  & h3 {
    font-size: 15px;
  }
`;

/** Taps that give the tempo each time it is set. */
const TAPS = 4;

/** Which units are tapped the tempo at the start and at each change of it. */
export function TapsPart({ show, song }: { readonly show: Show; readonly song: Song }) {
  const tapped = show.units.flatMap((unit) => {
    const control = unit.profile.controls.find((c) => isTap(c.encoding));
    return control ? [{ unit, control }] : [];
  });
  if (tapped.length === 0) return null;
  return (
    <Box aria-label="Tempo for units">
      <h3>The tempo is tapped to</h3>
      {tapped.map(({ unit, control }) => (
        <Check
          key={unit.id}
          isSelected={song.taps.some((t) => t.unitId === unit.id)}
          onChange={(on) => {
            const taps = on ? { id: newId(), unitId: unit.id, controlId: control.id, count: TAPS } : null;
            perform(
              setTaps(show, song.id, unit.id, taps),
              on ? `tap the tempo to ${unit.name}` : `no taps to ${unit.name}`,
            );
          }}
        >
          {unit.name}
        </Check>
      ))}
    </Box>
  );
}
