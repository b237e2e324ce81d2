import { Download, FileDown, Printer } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { SHEET_KINDS, sheetCsv, sheetsOf, type SheetCounting, type SheetKind } from '../../../core/sheets';
import { download, fileName } from '../../adapters/download';
import { Button, FormProblem, MainButton, Soft } from '../../components/controls';
import { Pick } from '../../components/Pick';
import { useApp, useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { exportPdf, usualPaper, type PaperSize } from './exportPdf';
import { PaperSheet } from './PaperSheet';

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  height: 100%;
  @media print {
    display: block;
    height: auto;
  }
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  padding: 12px 24px;
`;

const Desk = styled.div`
  overflow: auto;
  padding: 4px 24px 30px;
  background: ${desk.paper};
  @media print {
    padding: 0;
    background: #fff;
  }
`;

const KINDS: Readonly<Record<SheetKind, string>> = {
  cues: 'Cue sheets',
  set: 'Set list',
  numbers: 'Number charts',
  patch: 'Patch sheet',
  strips: 'Switch strips',
  fallback: 'Songs by foot',
  stored: 'Stored states',
  mix: 'Mix sheet',
  tones: 'Tone sheet',
};

const NONE: Readonly<Record<SheetKind, string>> = {
  set: 'The set has nothing in it yet: songs come into it in the view Set.',
  patch: 'The rig has no unit yet: units are added in the view Rig.',
  mix: 'The set has no song yet: levels are set for each song of the set.',
  tones: 'The show has no tone yet.',
  cues: 'The set has no song yet: each song of the set has a cue sheet.',
  numbers: 'No unit has presets or controls yet.',
  strips: 'No foot controller has a page yet.',
  fallback: 'No foot controller has pages and a life-boat wiring yet.',
  stored: 'No relay rule calls a stored state yet.',
};

const ALL = 'all';
const PAPERS = [
  { id: 'a4', name: 'A4' },
  { id: 'letter', name: 'Letter' },
];

/** Paper for a music stand and for the stage: looked at here as it is printed, and as tables. */
export function PaperPart() {
  const show = useShow();
  const counting = useApp((s) => s.counting);
  const [kind, setKind] = useState<SheetKind>('cues');
  const [only, setOnly] = useState(ALL);
  const [paper, setPaper] = useState<PaperSize>(usualPaper);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const counted: SheetCounting = counting;
  const all = sheetsOf(show, kind, counted);
  const chosen = all.filter((s) => only === ALL || s.id === only);
  const sheets = chosen.length > 0 ? chosen : all;
  const many = all.length > 1;
  return (
    <Page>
      <Tools className="screen-only">
        <Pick
          label="Sheet"
          width="170px"
          value={kind}
          choices={SHEET_KINDS.map((k) => ({ id: k, name: KINDS[k] }))}
          onPick={(k) => {
            setKind(k as SheetKind);
            setOnly(ALL);
          }}
        />
        {many && (
          <Pick
            label="Of"
            width="210px"
            value={chosen.length > 0 ? only : ALL}
            choices={[
              { id: ALL, name: `all ${all.length}` },
              ...all.map((s) => ({ id: s.id, name: kind === 'fallback' ? `${s.title}, ${s.kind}` : s.title })),
            ]}
            onPick={setOnly}
          />
        )}
        <Pick label="Paper" width="90px" value={paper} choices={PAPERS} onPick={(p) => setPaper(p as PaperSize)} />
        <MainButton
          isDisabled={sheets.length === 0 || busy}
          onPress={() => {
            setProblem(null);
            setBusy(true);
            exportPdf(show, sheets, KINDS[kind], paper)
              .catch((e: unknown) => setProblem(`The PDF was not made: ${(e as Error).message}.`))
              .finally(() => setBusy(false));
          }}
        >
          <FileDown size={16} aria-hidden /> {busy ? 'Making it …' : 'PDF'}
        </MainButton>
        <Button onPress={() => window.print()} isDisabled={sheets.length === 0}>
          <Printer size={16} aria-hidden /> Print
        </Button>
        <Button
          isDisabled={sheets.length === 0}
          onPress={() =>
            download(fileName(`${show.title} ${KINDS[kind]}`, 'csv'), sheetCsv(sheets), 'text/csv;charset=utf-8')
          }
        >
          <Download size={16} aria-hidden /> Table (CSV)
        </Button>
        {kind === 'numbers' && (
          <Soft style={{ fontSize: 13, paddingBottom: 8 }}>Numbers are counted as chosen above.</Soft>
        )}
        {problem !== null && <FormProblem>{problem}</FormProblem>}
      </Tools>
      <Desk tabIndex={0} role="region" aria-label="Sheets">
        {sheets.length === 0 ? (
          <p>{NONE[kind]}</p>
        ) : (
          sheets.map((sheet) => <PaperSheet key={sheet.id} sheet={sheet} show={show.title} />)
        )}
      </Desk>
    </Page>
  );
}
