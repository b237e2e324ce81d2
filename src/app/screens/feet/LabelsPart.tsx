import { Printer } from 'lucide-react';
import styled from 'styled-components';
import { labelsOf } from '../../../core/feet';
import { pageTitle, pagesOf, type Unit } from '../../../core/show';
import { Button, Soft } from '../../components/controls';
import { useShow } from '../../state/store';
import { font } from '../../theme/tokens';
import { ControllerPick, Say, Stack, Tools } from './parts';

/** A page's strips: as wide as the switches lie apart, to be cut out. */
const Sheet = styled.section`
  break-inside: avoid;
  & > h2 {
    font: 700 15px/1.3 ${font.display};
    margin-bottom: 4px;
  }
`;

const Strip = styled.div`
  display: flex;
  width: max-content;
  box-sizing: content-box;
  border: 0.3mm solid #000;
  background: #fff;
  color: #000;
  & + & {
    margin-top: 1.5mm;
  }
`;

const Cell = styled.div<{ $pitch: number; $clash: boolean }>`
  width: ${({ $pitch }) => $pitch}mm;
  height: 14mm;
  flex: none;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 0.5mm;
  padding: 0 1mm;
  border-left: 0.2mm dashed #666;
  text-align: center;
  overflow: hidden;
  &:first-child {
    border-left: 0;
  }
  & > b {
    font: 700 4.2mm/1.05 ${font.display};
  }
  & > small {
    font: 500 2.7mm/1 ${font.bytes};
    text-decoration: ${({ $clash }) => ($clash ? 'underline wavy' : 'none')};
  }
`;

/** Millimetres of a strip that fit across a sheet of paper, A4 or Letter, held upright. */
const SHEET_WIDTH = 186;

/** A list in pieces of so many. */
const inPieces = <T,>(list: readonly T[], count: number): readonly (readonly T[])[] =>
  Array.from({ length: Math.ceil(list.length / count) }, (_, i) => list.slice(i * count, (i + 1) * count));

/** Strips for the switches, in their true size, and what displays show. */
export function LabelsPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const pages = pagesOf(show, unit.id);
  const { display, pitch, lights } = unit.profile.controller!;
  const sheets = pages.map((page) => ({ page, labels: labelsOf(show, unit.id, page.id) }));
  const clashes = sheets.filter((s) => s.labels.some((l) => l.clash)).length;
  return (
    <Stack>
      <Tools>
        <ControllerPick unit={unit} part="labels" />
        <Button onPress={() => window.print()} isDisabled={pages.length === 0}>
          <Printer size={16} aria-hidden /> Print the strips
        </Button>
      </Tools>
      <Soft style={{ fontSize: 14 }}>
        {pitch} mm from switch to switch: print at 100 %. What is wider than a sheet comes in pieces.{' '}
        {display.letters === 'none' || display.length === 0
          ? 'The controller has no displays.'
          : `Below each name what a display of ${display.length} letters shows.`}{' '}
        {lights ? 'A light at each switch tells on from off.' : 'No light tells on from off.'}
      </Soft>
      {pages.length === 0 && <p>No page yet: labels follow from the pages.</p>}
      {clashes > 0 && (
        <Say $wrong>
          On {clashes} {clashes === 1 ? 'page' : 'pages'} two displays show the same for different things: they are
          underlined.
        </Say>
      )}
      {sheets.map(({ page, labels }) => {
        const rows = [...new Set(labels.map((l) => l.row))];
        const across = Math.max(1, Math.floor(SHEET_WIDTH / pitch));
        const strips = rows.flatMap((row) =>
          inPieces(
            labels.filter((l) => l.row === row),
            across,
          ),
        );
        return (
          <Sheet key={page.id} aria-label={pageTitle(show, unit.id, page.id)}>
            <h2>{pageTitle(show, unit.id, page.id)}</h2>
            {strips.map((strip) => (
              <Strip key={strip[0]!.switchId}>
                {strip.map((l) => (
                  <Cell key={l.switchId} $pitch={pitch} $clash={l.clash}>
                    <b>{l.name}</b>
                    {l.shown !== '' && <small>{l.shown}</small>}
                  </Cell>
                ))}
              </Strip>
            ))}
          </Sheet>
        );
      })}
    </Stack>
  );
}
