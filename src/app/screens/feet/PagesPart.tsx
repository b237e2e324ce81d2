import { useMemo, useRef, type KeyboardEvent, type RefObject } from 'react';
import styled from 'styled-components';
import { checkRig, type Finding } from '../../../core/checks';
import { entryOn, switchSends } from '../../../core/feet';
import {
  feetOf,
  indexShow,
  newFootSwitch,
  putFootSwitches,
  type FootSwitch,
  type Unit,
  type Slot,
  type FootPage,
  type LayerId,
} from '../../../core/show';
import { tonightOf } from '../../../core/tonight';
import { findingSentence, fixWords } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { perform, playOut, say } from '../../state/desk';
import { useFeet } from '../../state/feet';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { Floor } from './Floor';
import { ManyPanel } from './ManyPanel';
import { PageActs, PageRow, renamePage, setPageSong } from './PageRow';
import { ControllerPick, Side, Sides, Stack, Tools } from './parts';
import { Pedals } from './Pedals';
import { DOES_FIELD, SwitchPanel } from './SwitchPanel';
import { platesOf, usePages } from './usePages';
import type { Controller } from '../../../core/addressing';

const Found = styled.ul`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 6px 10px;
    border-left: 4px solid ${desk.rust};
    background: ${desk.rustWash};
    font-size: 14px;
    & > span {
      flex: 1;
    }
  }
`;

const NO_SONG = 'none';

/** The pages of a controller, and one of them as it lies on the floor. */
export function PagesPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const controller = unit.profile.controller!;
  const state = usePages(show, unit, controller);
  const { page, pages, layerId, chosen, choose } = state;
  const floor = useNews((s) => s.news.floors.find((f) => f.unitId === unit.id));
  const armed = useNews((s) => s.news.armed[unit.id]);
  const panel = useRef<HTMLElement>(null);
  const feet = feetOf(show, unit.id);
  const slot = page ? indexShow(show).slots(unit.id).get(page.id) : undefined;
  const onFloorPage = floor?.programmed === true && slot?.index === floor.page;
  const plates = platesOf(show, unit, layerId, onFloorPage ? floor : undefined);
  const findings = useMemo(
    () => checkRig(tonightOf(show)).filter((f) => f.place.in === 'feet' && f.place.unitId === unit.id),
    [show, unit.id],
  );
  const here = findings.filter((f) => f.place.in === 'feet' && f.place.pageId === layerId);
  const ids = [...chosen];
  const toField = (letter = ''): void => {
    const input = document.getElementById(DOES_FIELD);
    if (!(input instanceof HTMLInputElement)) return;
    input.focus();
    // What was typed on the floor is typed into the field.
    if (letter !== '') document.execCommand('insertText', false, letter);
  };
  const put = (switches: readonly FootSwitch[], label: string): void =>
    void perform(putFootSwitches(show, unit.id, layerId, switches), label);
  const onKey = (e: KeyboardEvent<HTMLElement>): boolean => {
    const command = e.ctrlKey || e.metaKey;
    if (command && e.key === 'c') {
      const taken = ids.flatMap((id) => entryOn(feet, page, id) ?? []);
      useFeet.setState({ copied: taken });
      if (taken.length > 0) say(`${taken.length === 1 ? 'A switch is' : `${taken.length} switches are`} copied.`);
      return true;
    }
    if (command && e.key === 'v') {
      pasteAt(ids[0]);
      return true;
    }
    if (command || e.altKey) return false;
    if (e.key === 'Delete' || e.key === 'Backspace') {
      put(
        ids.map((id) => newFootSwitch(id, [])),
        'clear switches',
      );
      return true;
    }
    if (e.key === ' ') {
      const [id] = ids;
      const press = id && switchSends(show, unit.id, layerId, id).sends.find((s) => s.trigger === 'press');
      if (press)
        void playOut(
          unit.id,
          press.messages.map((m) => m.bytes),
        );
      return true;
    }
    if (e.key === 'Enter' || e.key === 'F2') {
      toField();
      return true;
    }
    if (e.key.length === 1 && /\p{L}|\p{N}/u.test(e.key)) {
      toField(e.key);
      return true;
    }
    return false;
  };
  /** Copied switches go where they were chosen, one after the other in the order of the floor. */
  const pasteAt = (from: string | undefined): void => {
    const { copied } = useFeet.getState();
    if (copied.length === 0) return say('Nothing is copied yet.');
    const order = controller.switches.map((s) => s.id);
    const start = order.indexOf(from ?? order[0]!);
    const anchor = order.indexOf(copied[0]!.id);
    const moved = copied.flatMap((s) => {
      const target = order[start + order.indexOf(s.id) - anchor];
      return target === undefined ? [] : [{ ...s, id: target }];
    });
    put(moved, 'paste switches');
  };
  return (
    <Sides>
      <Stack>
        <Tools>
          <ControllerPick unit={unit} part="pages" />
          <PageActs unit={unit} state={state} />
          {page && slot && <PageTools slot={slot} unit={unit} page={page} layerId={layerId} />}
        </Tools>
        <PageRow unit={unit} controller={controller} state={state} />
        {pages.length === 0 && layerId === null && (
          <p>
            No page yet. Add one, or have pages proposed for the songs of the set. What is put on a switch here stands
            on every page.
          </p>
        )}
        <Floor
          label={page ? `Switches of ${slot?.name ?? 'the page'}` : 'Switches on every page'}
          controller={controller}
          plates={plates}
          chosen={chosen}
          onChoose={choose}
          onKey={onKey}
        />
        <Soft style={{ fontSize: 13 }}>
          Arrows go from switch to switch, with Shift they take more. Type a name to put it there; Space tries the
          switch; Delete clears it; Ctrl+C and Ctrl+V copy.
          {armed !== undefined && armed === layerId && ' A switch of this page was heard last.'}
        </Soft>
        <Pedals unit={unit} layerId={layerId} />
        {here.length > 0 && <PageFindings here={here} />}
      </Stack>
      <ChosenSwitches panel={panel} ids={ids} choose={choose} controller={controller} layerId={layerId} unit={unit} />
    </Sides>
  );
}

interface ChosenSwitchesProps {
  readonly panel: RefObject<HTMLElement | null>;
  readonly ids: string[];
  readonly choose: (id: string, how: 'alone' | 'to' | 'besides') => void;
  readonly controller: Controller;
  readonly layerId: LayerId;
  readonly unit: Unit;
}

/** The chosen switch, or several. */
function ChosenSwitches({ panel, ids, choose, controller, layerId, unit }: ChosenSwitchesProps) {
  return (
    <Side ref={panel} aria-label="Chosen switch">
      {ids.length === 0 ? (
        <div style={{ display: 'grid', gap: 10, justifyItems: 'start' }}>
          <Soft>Choose a switch to say what it does.</Soft>
          <MainButton onPress={() => choose(controller.switches[0]!.id, 'alone')}>Choose the first switch</MainButton>
        </div>
      ) : ids.length === 1 ? (
        <SwitchPanel key={`${layerId ?? ''}/${ids[0]!}`} unit={unit} layerId={layerId} switchId={ids[0]!} />
      ) : (
        <ManyPanel key={ids.join()} unit={unit} layerId={layerId} switchIds={ids} />
      )}
    </Side>
  );
}

/** What is wrong on the page, with the way to mend it. */
function PageFindings({ here }: { readonly here: Finding[] }) {
  return (
    <Found aria-label="Findings of the page">
      {here.map((f, i) => (
        <li key={i}>
          <span>{findingSentence(f)}</span>
          {f.fix && <Button onPress={() => perform(f.fix, fixWords(f).toLowerCase())}>{fixWords(f)}</Button>}
        </li>
      ))}
    </Found>
  );
}

interface PageToolsProps {
  readonly slot: Slot;
  readonly unit: Unit;
  readonly page: FootPage;
  readonly layerId: LayerId;
}

/** The name of the page, and away with it. */
function PageTools({ slot, unit, page, layerId }: PageToolsProps) {
  const show = useShow();
  return (
    <>
      <DraftField
        label="Page"
        value={slot.name}
        style={{ width: 150 }}
        commit={(name) => (renamePage(show, unit, page, name), null)}
      />
      <Pick
        label="For the song"
        width="190px"
        value={page.songId ?? NO_SONG}
        choices={[{ id: NO_SONG, name: 'no song' }, ...show.songs.map((s) => ({ id: s.id, name: s.title }))]}
        onPick={(id) => setPageSong(show, unit, layerId, id === NO_SONG ? null : id)}
      />
    </>
  );
}
