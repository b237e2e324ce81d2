import { Download, FileDown } from 'lucide-react';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { fileName } from '../../../core/formats/fileName';
import {
  FLOOR_KINDS,
  SHEET_KINDS,
  type Sheet,
  type SheetKind,
  type SheetUse,
  type SheetWish,
} from '../../../core/sheets';
import type { SheetHead } from '../../../workers/protocol';
import { download } from '../../adapters/download';
import { Button, FormProblem, MainButton, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { PrintButton } from '../../features/PrintButton';
import { SongNotes } from '../../features/SongNotes';
import { useNear } from '../../widgets/useNear';
import { askFiles } from '../../state/desk';
import { useApp, useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { PAPERS, exportPdf, usualPaper, type PaperSize } from './exportPdf';
import { PaperSheet } from './PaperSheet';
import { unprintableSentence } from '../../../wording';
import { useSheet, useSheetHeads, useUnprintable, useWholeSheets, type ChosenSheets } from './useSheets';

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
  pads: 'Reactions and pads',
  ports: 'Ports',
  starts: 'Starts',
  accepted: 'Findings let be',
  tonight: 'Tonight',
};

const NONE: Readonly<Record<SheetKind, string>> = {
  set: 'The set has nothing in it yet: songs come into it in the view Set.',
  patch: 'The rig has no unit yet: units are added in the view Rig.',
  mix: 'The set has no song yet: levels are set for each song of the set.',
  tones: 'The show has no tone yet.',
  cues: 'The set has no song yet: each song of the set has a cue sheet.',
  numbers: 'No unit has presets or controls yet.',
  strips: 'No foot controller has a page yet.',
  fallback: 'No foot controller has pages yet.',
  stored: 'No relay rule calls a stored state yet.',
  pads: 'The show reacts to nothing yet: reactions are made in the view Feet.',
  ports: 'The rig has no port yet: ports are added in the view Rig.',
  starts: 'No message from outside starts a song of the set.',
  accepted: 'No finding is let be.',
  tonight: 'Tonight everything is as usual.',
};

const USES = [
  { id: 'desk', name: 'the desk' },
  { id: 'floor', name: 'the floor' },
] as const;

const ALL = 'all';

/** Paper for a music stand and for the stage: looked at here as it is printed, and as tables. */
export function PaperPart() {
  const show = useShow();
  const counting = useApp((s) => s.counting);
  const [query] = useSearchParams();
  const [kind, setKind] = useState<SheetKind>(SHEET_KINDS.find((k) => k === query.get('sheet')) ?? 'cues');
  const [chosenUse, setUse] = useState<SheetUse>('desk');
  const [only, setOnly] = useState(ALL);
  const [paper, setPaper] = useState<PaperSize>(usualPaper);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wish: SheetWish = { kind, counting, use: FLOOR_KINDS.has(kind) ? chosenUse : 'desk' };
  const { data: all, error } = useSheetHeads(wish);
  const known = all ?? [];
  const picked = known.filter((s) => only === ALL || s.id === only);
  const chosen: ChosenSheets = { wish, sheets: picked.length > 0 ? picked : known };
  const { sheets } = chosen;
  // What is printed at the head of a sheet is edited beside it.
  const song =
    kind === 'cues' && sheets.length === 1 ? show.songs.find((s) => `cues-${s.id}` === sheets[0]!.id) : undefined;
  const many = known.length > 1;
  const prints = sheets.reduce((sum, s) => sum + s.lines, 0) <= PRINTED_LINES;
  // Whatever may be printed has to be there when it is: the browser waits for nothing then.
  const whole = useWholeSheets(wish, prints && known.length > 0);
  const refused = (what: string) => (e: unknown) => setProblem(`${what} was not made: ${(e as Error).message}.`);
  return (
    <Page>
      <Tools className="screen-only">
        <Pick
          label="Sheet"
          width="170px"
          value={kind}
          choices={SHEET_KINDS.map((k) => ({ id: k, name: KINDS[k] }))}
          onPick={(k) => {
            setKind(k);
            setOnly(ALL);
          }}
        />
        {many && (
          <Pick
            label="Of"
            width="210px"
            value={picked.length > 0 ? only : ALL}
            choices={[
              { id: ALL, name: `all ${known.length}` },
              ...known.map((s) => ({ id: s.id, name: kind === 'fallback' ? `${s.title}, ${s.kind}` : s.title })),
            ]}
            onPick={setOnly}
          />
        )}
        {FLOOR_KINDS.has(kind) && (
          <Pick label="Read from" width="110px" value={chosenUse} choices={USES} onPick={setUse} />
        )}
        {song && <SongNotes key={song.id} song={song} style={{ width: 330 }} />}
        <Pick label="Paper" width="90px" value={paper} choices={PAPERS} onPick={(p) => setPaper(p)} />
        <PdfButton
          sheets={sheets}
          busy={busy}
          setProblem={setProblem}
          setBusy={setBusy}
          chosen={chosen}
          kind={kind}
          paper={paper}
          refused={refused}
        />
        <PrintButton
          isDisabled={sheets.length === 0 || (prints && !whole)}
          tooMuch={prints ? null : 'Too much to print from here.'}
        >
          Print
        </PrintButton>
        <Button
          isDisabled={sheets.length === 0}
          onPress={() => {
            setProblem(null);
            const ids = sheets.map((s) => s.id);
            askFiles((w) => w.sheetTable(wish, ids))
              .then((text) => download(fileName(`${show.title} ${KINDS[kind]}`, 'csv'), text, 'text/csv;charset=utf-8'))
              .catch(refused('The table'));
          }}
        >
          <Download size={16} aria-hidden /> Table (CSV)
        </Button>
        {kind === 'numbers' && (
          <Soft style={{ fontSize: 13, paddingBottom: 8 }}>Numbers are counted as chosen above.</Soft>
        )}
        {problem !== null && <FormProblem>{problem}</FormProblem>}
      </Tools>
      <SheetDesk all={all} failed={error?.message ?? null} wish={wish} prints={prints} sheets={sheets} whole={whole} />
    </Page>
  );
}

interface SheetDeskProps {
  /** Why there are none. */
  readonly failed: string | null;
  readonly all: readonly SheetHead[] | undefined;
  readonly wish: SheetWish;
  readonly prints: boolean;
  readonly sheets: readonly SheetHead[];
  readonly whole: ReadonlyMap<string, Sheet> | undefined;
}

/** The sheets below each other, drawn as they come in sight. */
function SheetDesk({ all, failed, wish, prints, sheets, whole }: SheetDeskProps) {
  const show = useShow();
  const odd = useUnprintable(wish);
  return (
    <Desk tabIndex={0} role="region" aria-label="Sheets">
      {all?.length === 0 && <p>{NONE[wish.kind]}</p>}
      {odd.length > 0 && <p role="status">{unprintableSentence(odd)}</p>}
      {all === undefined && (
        <p role="status">{failed === null ? 'The sheets are being made …' : `The sheets were not made: ${failed}.`}</p>
      )}
      {!prints && (
        <p className="paper-only">
          This is too much to print from here: make a PDF of it and print that, or choose one sheet.
        </p>
      )}
      {sheets.map((head) => (
        <SheetPlace
          key={head.id}
          head={head}
          wish={wish}
          show={show.title}
          given={whole?.get(head.id)}
          asks={!prints}
        />
      ))}
    </Desk>
  );
}

interface PdfButtonProps {
  readonly sheets: readonly SheetHead[];
  readonly busy: boolean;
  readonly setProblem: (value: string | null) => void;
  readonly setBusy: (value: boolean) => void;
  readonly chosen: ChosenSheets;
  readonly kind: SheetKind;
  readonly paper: PaperSize;
  readonly refused: (what: string) => (e: unknown) => void;
}

/** Makes a PDF of the sheets. */
function PdfButton({ sheets, busy, setProblem, setBusy, chosen, kind, paper, refused }: PdfButtonProps) {
  const show = useShow();
  return (
    <MainButton
      isDisabled={sheets.length === 0 || busy}
      onPress={() => {
        setProblem(null);
        setBusy(true);
        exportPdf(show, chosen, KINDS[kind], paper)
          .catch(refused('The PDF'))
          .finally(() => setBusy(false));
      }}
    >
      <FileDown size={16} aria-hidden /> {busy ? 'Making it …' : 'PDF'}
    </MainButton>
  );
}

/** So many lines are drawn whole, and can be printed from the page as they are; more are printed from a PDF. */
const PRINTED_LINES = 350;

/** Pixels of a line, and of all else on a sheet, until it was drawn. */
const LINE = 30;
const FRAME = 190;

interface PlaceProps {
  readonly head: SheetHead;
  readonly wish: SheetWish;
  /** Title of the show. */
  readonly show: string;
  /** What stands on it, where it came with all others. */
  readonly given: Sheet | undefined;
  /** It is asked for by itself when it comes in sight. */
  readonly asks: boolean;
}

/** A sheet where it lies: drawn when it comes in sight. */
function SheetPlace({ head, wish, show, given, asks }: PlaceProps) {
  const { ref, near, height } = useNear();
  const asked = useSheet(wish, head.id, near && asks);
  const sheet = given ?? asked;
  return (
    <div ref={ref} style={sheet && (near || given) ? undefined : { height: height ?? head.lines * LINE + FRAME }}>
      {sheet && (near || given) && <PaperSheet sheet={sheet} show={show} whole={given !== undefined} />}
    </div>
  );
}
