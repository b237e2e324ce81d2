import { ArrowLeft, ArrowRight, Copy, Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { labelOf, type Controller } from '../../../core/addressing';
import { entryOn } from '../../../core/feet';
import {
  addFootPage,
  changeFeet,
  feetOf,
  indexShow,
  nameSlot,
  orderFootPages,
  removeFootPage,
  type FootPage,
  type LayerId,
  type Show,
  type Unit,
} from '../../../core/show';
import { Button, SignButton } from '../../widgets/controls';
import { newId, perform, say } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import type { PagesState } from './usePages';

const Row = styled.div`
  display: flex;
  gap: 8px;
  overflow-x: auto;
  padding: 2px 2px 8px;
`;

const Card = styled.button<{ $open: boolean }>`
  display: grid;
  gap: 3px;
  flex: none;
  width: 118px;
  padding: 6px 8px 7px;
  border: ${({ $open }) => ($open ? 3 : 1.5)}px solid ${({ $open }) => ($open ? desk.ink : desk.lineStrong)};
  margin: ${({ $open }) => ($open ? 0 : 1.5)}px;
  border-radius: 4px 14px 4px 14px;
  background: ${({ $open }) => ($open ? desk.lampWash : desk.sheet)};
  color: ${desk.ink};
  text-align: left;
  cursor: pointer;
  & > b {
    font: 700 14px/1.2 ${font.display};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-height: 17px;
  }
  & > small {
    font-size: 12px;
    color: ${desk.inkSoft};
  }
`;

const Acts = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  flex-wrap: wrap;
`;

interface Props {
  readonly unit: Unit;
  readonly controller: Controller;
  readonly state: PagesState;
}

/** The pages as a row of small floors, in the order in which the controller keeps them. */
export function PageRow({ unit, controller, state }: Props) {
  const show = useShow();
  const { pages, layerId, open } = state;
  const feet = feetOf(show, unit.id);
  const slots = indexShow(show).slots(unit.id);
  return (
    <Row role="group" aria-label="Pages">
      <Card type="button" $open={layerId === null} aria-pressed={layerId === null} onClick={() => open(null)}>
        <small>all pages</small>
        <SmallFloor controller={controller} filled={(id) => entryOn(feet, null, id) !== null} core={() => true} />
        <b>Everywhere</b>
      </Card>
      {pages.map((page) => {
        const slot = slots.get(page.id);
        const own = new Set(page.switches.map((s) => s.id));
        return (
          <Card
            key={page.id}
            type="button"
            $open={page.id === layerId}
            aria-pressed={page.id === layerId}
            onClick={() => open(page.id)}
          >
            <small>{slot ? labelOf(unit.profile.plan, slot.index) : 'no place'}</small>
            <SmallFloor
              controller={controller}
              filled={(id) => entryOn(feet, page, id) !== null}
              core={(id) => !own.has(id) || onMost(pages, page, id)}
            />
            <b>{slot?.name ?? ''}</b>
          </Card>
        );
      })}
    </Row>
  );
}

/** Whether a switch of a page does the same on most of the pages: joined by a line through them. */
function onMost(pages: readonly FootPage[], page: FootPage, id: string): boolean {
  const text = (p: FootPage): string => JSON.stringify(p.switches.find((s) => s.id === id)?.doings ?? null);
  const mine = text(page);
  return mine !== 'null' && pages.length > 1 && pages.filter((p) => text(p) === mine).length > pages.length / 2;
}

interface SmallProps {
  readonly controller: Controller;
  readonly filled: (id: string) => boolean;
  readonly core: (id: string) => boolean;
}

const CELL = 17;

/** A page too small to read: which switches do something, and which of them are the same everywhere. */
export function SmallFloor({ controller: { switches }, filled, core }: SmallProps) {
  const columns = Math.max(...switches.map((s) => s.column)) + 1;
  const rows = Math.max(...switches.map((s) => s.row)) + 1;
  return (
    <svg viewBox={`0 0 ${columns * CELL} ${rows * CELL}`} height={rows > 2 ? 44 : 32} aria-hidden>
      {switches.map(({ id, row, column }) => {
        const shared = filled(id) && core(id);
        const y = row * CELL + CELL / 2;
        return (
          <g key={id}>
            {shared && (
              <line x1={column * CELL} x2={(column + 1) * CELL} y1={y} y2={y} stroke={desk.tide} strokeWidth={2.5} />
            )}
            <rect
              x={column * CELL + 3}
              y={row * CELL + 3}
              width={CELL - 6}
              height={CELL - 6}
              rx={2.5}
              fill={filled(id) ? (shared ? desk.tide : desk.lamp) : desk.field}
              stroke={desk.ink}
              strokeWidth={1.2}
            />
          </g>
        );
      })}
    </svg>
  );
}

/** What can be done with the page that is open, and one more. */
export function PageActs({ unit, state }: Omit<Props, 'controller'>) {
  const show = useShow();
  const { pages, page, open } = state;
  const add = (copy: FootPage | null): void => {
    const name = copy ? `${indexShow(show).slots(unit.id).get(copy.id)?.name ?? 'Page'} 2` : `Page ${pages.length + 1}`;
    const rest = copy ? { switches: copy.switches, pedals: copy.pedals } : {};
    const added = addFootPage(show, unit.id, name, newId, rest);
    if (!added) say(`${unit.name} has no place for another page.`);
    else if (perform(added.edit, copy ? 'duplicate a page' : 'add a page')) open(added.pageId);
  };
  const move = (by: 1 | -1): void => {
    const order = pages.map((p) => p.id);
    const at = order.indexOf(page!.id);
    order.splice(at + by, 0, ...order.splice(at, 1));
    perform(orderFootPages(show, unit.id, order), 'move a page');
  };
  const at = page ? pages.indexOf(page) : -1;
  return (
    <Acts>
      <Button onPress={() => add(null)}>
        <Plus size={15} aria-hidden /> Add a page
      </Button>
      {page && (
        <>
          <SignButton aria-label="Duplicate the page" onPress={() => add(page)}>
            <Copy size={16} aria-hidden />
          </SignButton>
          <SignButton aria-label="Move the page to the left" isDisabled={at === 0} onPress={() => move(-1)}>
            <ArrowLeft size={17} aria-hidden />
          </SignButton>
          <SignButton
            aria-label="Move the page to the right"
            isDisabled={at === pages.length - 1}
            onPress={() => move(1)}
          >
            <ArrowRight size={17} aria-hidden />
          </SignButton>
          <SignButton
            aria-label="Delete the page"
            onPress={() => perform(removeFootPage(show, unit.id, page.id), 'delete a page')}
          >
            <Trash2 size={16} aria-hidden />
          </SignButton>
        </>
      )}
    </Acts>
  );
}

/** Renames a page: its name is its preset's. */
export function renamePage(show: Show, unit: Unit, page: FootPage, name: string): void {
  const slot = indexShow(show).slots(unit.id).get(page.id);
  if (slot) perform(nameSlot(show, unit.id, slot.index, name, page.id), 'rename a page');
}

/** Says which song a page is for. */
export function setPageSong(show: Show, unit: Unit, layerId: LayerId, songId: string | null): void {
  perform(
    changeFeet(show, unit.id, (feet) => ({
      ...feet,
      pages: feet.pages.map((p) => (p.id === layerId ? { ...p, songId } : p)),
    })),
    'set the song of a page',
  );
}
