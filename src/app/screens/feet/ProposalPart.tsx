import { Pin, Sparkles } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { takeProposal, type PlacedTone, type Proposal, type ProposedPage, type ToneMove } from '../../../core/feet';
import { indexShow, songsOfSet, type Show, type Unit, type Song } from '../../../core/show';
import { MainButton, Soft } from '../../widgets/controls';
import { Fold } from '../../widgets/Fold';
import { PlainTable } from '../../widgets/plainTable';
import { newId, perform, proposePages } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SmallFloor } from './PageRow';
import { ControllerPick, Say, SmallHead, Stack, Tools } from './parts';
import type { Controller } from '../../../core/addressing';

const Pages = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Page = styled.li`
  display: grid;
  gap: 6px;
  padding: 9px 12px 11px;
  border: 1.5px solid ${desk.line};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > h2 {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    font: 700 16px/1.2 ${font.display};
  }
`;

const Places = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns }) => $columns}, minmax(0, 1fr));
  gap: 4px;
`;

const Place = styled.span<{ $why: PlacedTone['why'] | 'jump' | 'none'; $moved: boolean }>`
  min-height: 38px;
  padding: 3px 5px;
  border: 1.5px solid ${({ $moved }) => ($moved ? desk.lampDeep : desk.line)};
  border-radius: 3px 9px 3px 9px;
  background: ${({ $why }) => ($why === 'core' || $why === 'pinned' ? desk.tideWash : $why === 'order' ? desk.lampWash : 'transparent')};
  font-size: 12.5px;
  line-height: 1.2;
  overflow: hidden;
`;

const WHY: Readonly<Record<PlacedTone['why'], string>> = {
  core: 'most songs use it: the same place on every page, as near as the order of first use allows',
  order: 'in the order of its first use in the song',
  pinned: 'pinned there',
};

/** A proposal, of which show and controller it is; `trouble` where it could not be worked out. */
interface Asked {
  readonly show: Show;
  readonly unitId: string;
  readonly proposal: Proposal | null;
  readonly trouble: boolean;
}

/** The proposal for a controller of the show as it is now; undefined while it is worked out. */
function useProposal(show: Show, unitId: string, wanted: boolean): Asked | undefined {
  const [asked, setAsked] = useState<Asked>();
  useEffect(() => {
    if (!wanted) return undefined;
    let stands = true;
    const done = (proposal: Proposal | null, trouble: boolean): void => {
      if (stands) setAsked({ show, unitId, proposal, trouble });
    };
    proposePages(unitId).then(
      (proposal) => done(proposal ?? null, false),
      () => done(null, true),
    );
    return () => {
      stands = false;
    };
  }, [show, unitId, wanted]);
  return asked?.show === show && asked.unitId === unitId ? asked : undefined;
}

/** Pages for the songs of the set: worked out by themselves, looked at, taken over or not. */
export function ProposalPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const hasSongs = songsOfSet(show).length > 0;
  const asked = useProposal(show, unit.id, hasSongs);
  const proposal = asked?.proposal ?? null;
  const edit = useMemo(() => proposal && takeProposal(show, proposal, newId), [show, proposal]);
  const says = !hasSongs
    ? 'The set has no song yet: a proposal is a page for each song of the set.'
    : asked?.trouble
      ? 'The proposal could not be worked out. Reload the page: nothing that was typed is lost.'
      : !proposal
        ? 'Working it out …'
        : edit
          ? 'Nothing changes before you use them, and one undo takes it back.'
          : 'The pages are as proposed.';
  return (
    <Stack>
      <Tools>
        <ControllerPick unit={unit} part="proposal" />
        <MainButton onPress={() => void perform(edit, 'take a proposal of pages')} isDisabled={!edit}>
          <Sparkles size={16} aria-hidden /> Use these pages
        </MainButton>
        <Soft role="status">{says}</Soft>
      </Tools>
      <Fold summary="How pages are proposed">{() => <Explained />}</Fold>
      {proposal && <Result unit={unit} proposal={proposal} />}
    </Stack>
  );
}

/** What a proposal is. */
function Explained() {
  return (
    <div style={{ display: 'grid', gap: 8, maxWidth: 700 }}>
      <p>
        A page a song, in the order of the set: every tone of the song on its page, or one jump away. Tones of most
        songs stand in one place on every page; the others run in the order of their first use, in reading order.
      </p>
      <p>
        What stands on every page, what is <Pin size={14} aria-label="pinned" /> pinned, and switches that do something
        else than call a tone keep their places.
      </p>
    </div>
  );
}

function Result({ unit, proposal }: { readonly unit: Unit; readonly proposal: Proposal }) {
  const show = useShow();
  const { tones, songs } = indexShow(show);
  const controller = unit.profile.controller!;
  const { pages, moves, stay, left, core } = proposal;
  const toneName = (id: string): string => tones.get(id)?.name ?? '';
  const switchName = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const columns = Math.max(...controller.switches.map((s) => s.column)) + 1;
  /** A page by its song; those of several say so. */
  const titleOf = (key: string): string => {
    const page = pages.find((p) => p.key === key);
    const more = page && page.sharedWith.length > 0 ? ` and ${page.sharedWith.length} more` : '';
    return `${songs.get(page?.songId ?? '')?.title ?? ''}${more}${page && page.part > 0 ? `, ${page.part + 1}` : ''}`;
  };
  const moved = new Set(moves.map((m) => `${m.songId}/${m.part}/${m.to}`));
  return (
    <>
      <Say role="status" $wrong={left.length > 0}>
        {pages.length} pages; {moves.length === 0 ? 'nothing moves' : `${moves.length} tones move or are new`}, {stay}{' '}
        {stay === 1 ? 'stays' : 'stay'}.{' '}
        {left.length > 0 && `${left.length} tones have no room: ${left.map((l) => toneName(l.toneId)).join(', ')}. `}
      </Say>
      {core.length > 0 && (
        <Soft style={{ fontSize: 14 }}>In one place on every page: {core.map(toneName).join(', ')}.</Soft>
      )}
      <Pages aria-label="Proposed pages">
        {pages.map((page) => {
          const at = new Map(page.tones.map((t) => [t.switchId, t]));
          const jumps = new Map(page.jumps.map((j) => [j.switchId, j]));
          const title = titleOf(page.key);
          return (
            <PageToBe
              key={`${page.songId}/${page.part}`}
              title={title}
              controller={controller}
              at={at}
              jumps={jumps}
              columns={columns}
              moved={moved}
              page={page}
              toneName={toneName}
              titleOf={titleOf}
            />
          );
        })}
      </Pages>
      {moves.length > 0 && <MovedTones moves={moves} songs={songs} toneName={toneName} switchName={switchName} />}
    </>
  );
}

interface MovedTonesProps {
  readonly moves: readonly ToneMove[];
  readonly songs: ReadonlyMap<string, Song>;
  readonly toneName: (id: string) => string;
  readonly switchName: (id: string) => string;
}

/** Tones that are elsewhere than before, and why. */
function MovedTones({ moves, songs, toneName, switchName }: MovedTonesProps) {
  return (
    <>
      <SmallHead>What moves, and why</SmallHead>
      <PlainTable aria-label="What moves, and why">
        <thead>
          <tr>
            {['Song', 'Tone', 'From', 'To', 'Because'].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {moves.map((m) => (
            <tr key={`${m.songId}/${m.part}/${m.to}`}>
              <td>{songs.get(m.songId)?.title}</td>
              <th scope="row">{toneName(m.toneId)}</th>
              <td>{m.from === null ? <Soft>new</Soft> : switchName(m.from)}</td>
              <td>{switchName(m.to)}</td>
              <td>{WHY[m.why]}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </>
  );
}

interface PageToBeProps {
  readonly title: string;
  readonly controller: Controller;
  readonly at: Map<string, PlacedTone>;
  readonly jumps: ReadonlyMap<string, ProposedPage['jumps'][number]>;
  readonly columns: number;
  readonly moved: Set<string>;
  readonly page: ProposedPage;
  readonly toneName: (id: string) => string;
  readonly titleOf: (key: string) => string;
}

/** A proposed page: which tone is on which switch. */
function PageToBe({ title, controller, at, jumps, columns, moved, page, toneName, titleOf }: PageToBeProps) {
  return (
    <Page>
      <h2>
        {title}
        <SmallFloor
          controller={controller}
          filled={(id) => at.has(id) || jumps.has(id)}
          core={(id) => at.get(id)?.why !== 'order'}
        />
      </h2>
      <Places $columns={columns}>
        {controller.switches
          .toSorted((a, b) => a.row - b.row || a.column - b.column)
          .map(({ id, row, column }) => {
            const tone = at.get(id);
            const jump = jumps.get(id);
            return (
              <Place
                key={id}
                $why={tone?.why ?? (jump ? 'jump' : 'none')}
                $moved={moved.has(`${page.songId}/${page.part}/${id}`)}
                style={{ gridRow: row + 1, gridColumn: column + 1 }}
              >
                {tone ? toneName(tone.toneId) : jump ? `to ${titleOf(jump.to)}` : ''}
              </Place>
            );
          })}
      </Places>
    </Page>
  );
}
