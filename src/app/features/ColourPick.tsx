import styled from 'styled-components';
import { COLOURS, meaningOf, setMeaning, type ColourName } from '../../core/show';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { unitColour } from '../theme/tokens';
import { DraftField } from '../widgets/DraftField';
import { Fold } from '../widgets/Fold';
import { Pick } from '../widgets/Pick';

const NONE = 'none';

/** A colour as it is drawn, by day and by dusk. */
export const inkOf = (colour: ColourName): string => unitColour(COLOURS.indexOf(colour));

/** A mark in a colour that stands for something: a tab, told by its name. */
export const ColourMark = styled.i<{ $colour: ColourName }>`
  display: inline-block;
  flex: none;
  width: 14px;
  height: 20px;
  border-radius: 2px 7px 2px 7px;
  background: ${({ $colour }) => inkOf($colour)};
`;

interface Props {
  readonly label: string;
  readonly value: ColourName | null;
  readonly onPick: (colour: ColourName | null) => void;
}

/** Chooses a colour by what it means. */
export function ColourPick({ label, value, onPick }: Props) {
  const show = useShow();
  const named = (colour: ColourName): string => {
    const means = meaningOf(show, colour);
    return means === '' ? colour : `${colour}: ${means}`;
  };
  return (
    <div style={{ display: 'flex', alignItems: 'end', gap: 8, minWidth: 0 }}>
      {value && <ColourMark $colour={value} style={{ height: 34 }} aria-hidden />}
      <Pick
        label={label}
        value={value ?? NONE}
        choices={[{ id: NONE, name: 'none' }, ...COLOURS.map((c) => ({ id: c, name: named(c) }))]}
        onPick={(id) => onPick(id === NONE ? null : id)}
        width="100%"
      />
    </div>
  );
}

const Meanings = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 18px;
  margin-top: 8px;
  & > div {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    align-items: end;
    gap: 8px;
  }
`;

/** What each colour means in this show, for players and for switches. */
export function ColourMeanings() {
  const show = useShow();
  return (
    <Fold summary="What colours mean">
      {() => (
        <Meanings>
          {COLOURS.map((colour) => (
            <div key={colour}>
              <ColourMark $colour={colour} style={{ height: 34 }} aria-hidden />
              <DraftField
                label={colour}
                value={meaningOf(show, colour)}
                commit={(text) => {
                  perform(setMeaning(show, colour, text), 'say what a colour means');
                  return null;
                }}
              />
            </div>
          ))}
        </Meanings>
      )}
    </Fold>
  );
}
