import { TRIGGERS, labelOf, type Trigger } from '../addressing';
import { decodeMessage, toHex, type Bytes } from '../midi';
import { indexShow, pagesOf, type MenuField, type Show } from '../show';
import { kindOfMessage, switchSends, type HoldKind } from './switchSends';

/** One message to be typed into a controller by its own switches. */
export interface TypedRow {
  /** The same for as long as all that is to be typed is: what was ticked off stays so until it changes. */
  readonly key: string;
  readonly fields: Readonly<Record<MenuField, string>>;
  readonly pageId: string;
  readonly switchId: string;
  readonly trigger: Trigger;
}

const figures = (bytes: Bytes): Pick<Record<MenuField, string>, 'channel' | 'number' | 'value'> => {
  const message = decodeMessage(bytes);
  switch (message?.kind) {
    case 'program':
      return { channel: String(message.channel), number: String(message.program), value: '' };
    case 'control':
      return { channel: String(message.channel), number: String(message.control), value: String(message.value) };
    case 'note-on':
    case 'note-off':
      return { channel: String(message.channel), number: String(message.note), value: String(message.velocity) };
    default:
      return { channel: '', number: '', value: toHex(bytes, ' ').toUpperCase() };
  }
};

const KIND_WORDS: Readonly<Record<Exclude<HoldKind, 'all'>, string>> = {
  program: 'program change',
  control: 'control change',
  note: 'note',
  exclusive: 'exclusive',
};

/** All that has to be typed into a controller that takes nothing over the cable, switch by switch. Numbers are as on the wire. */
export function typingList(show: Show, unitId: string): readonly TypedRow[] {
  const unit = indexShow(show).units.get(unitId);
  const controller = unit?.profile.controller;
  if (!unit || !controller) return [];
  const { senders, plan } = unit.profile;
  return pagesOf(show, unitId).flatMap((page) => {
    const slot = indexShow(show).slots(unitId).get(page.id);
    if (!slot) return [];
    return controller.switches.flatMap(({ id: switchId }) => {
      const { sends, name } = switchSends(show, unitId, page.id, switchId);
      return sends.flatMap(({ trigger, messages, page: to }) => {
        const base = {
          page: labelOf(plan, slot.index),
          name,
          switch: senders.find((s) => s.id === switchId)?.name ?? switchId,
          trigger: TRIGGER_WORDS[trigger],
        };
        const rows = messages.map((m, i) => ({
          nth: i,
          fields: { ...base, kind: KIND_WORDS[kindOfMessage(m.bytes)], ...figures(m.bytes) },
        }));
        const goes = to === null ? [] : [{ nth: messages.length, fields: { ...base, ...jumpFields(to, plan) } }];
        return [...rows, ...goes].map(({ nth, fields }): TypedRow => ({
          key: [page.id, switchId, trigger, nth, ...Object.values(fields)].join('|'),
          fields,
          pageId: page.id,
          switchId,
          trigger,
        }));
      });
    });
  });
}

const jumpFields = (to: number | 'next' | 'previous', plan: Parameters<typeof labelOf>[0]) => ({
  kind: 'go to page',
  channel: '',
  number: typeof to === 'number' ? labelOf(plan, to) : to,
  value: '',
});

/** How a trigger is called on paper and in lists. */
export const TRIGGER_WORDS: Readonly<Record<Trigger, string>> = {
  press: 'press',
  again: 'second press',
  release: 'release',
  long: 'hold',
  double: 'double press',
};

/** One switch to be pressed while what arrives is compared with the plan. */
export interface ListenStep {
  readonly pageId: string;
  readonly switchId: string;
  readonly expects: readonly Bytes[];
}

/** Every switch of every page that sends something when it is pressed and let go, in the order of pages and switches. */
export function listenSteps(show: Show, unitId: string): readonly ListenStep[] {
  const controller = indexShow(show).units.get(unitId)?.profile.controller;
  if (!controller) return [];
  return pagesOf(show, unitId).flatMap((page) =>
    controller.switches.flatMap(({ id }) => {
      const { sends } = switchSends(show, unitId, page.id, id);
      const expects = TRIGGERS.filter((t) => t === 'press' || t === 'release').flatMap(
        (t) => sends.find((s) => s.trigger === t)?.messages.map((m) => m.bytes) ?? [],
      );
      return expects.length > 0 ? [{ pageId: page.id, switchId: id, expects }] : [];
    }),
  );
}

/** What arrived, held against what was expected. */
export interface Listened {
  readonly outcome: 'right' | 'wrong' | 'waiting';
  readonly missing: readonly Bytes[];
  readonly extra: readonly Bytes[];
}

/** Whether what arrived since a switch was asked for is what it should send; as long as only something is missing, it is waited for. */
export function compareHeard(expects: readonly Bytes[], came: readonly Bytes[]): Listened {
  const left = came.map((b) => toHex(b));
  const missing: Bytes[] = [];
  for (const bytes of expects) {
    const at = left.indexOf(toHex(bytes));
    if (at < 0) missing.push(bytes);
    else left.splice(at, 1);
  }
  const rest = new Set(left);
  const extra = came.filter((b) => rest.has(toHex(b)));
  const outcome = extra.length > 0 ? 'wrong' : missing.length > 0 ? 'waiting' : 'right';
  return { outcome, missing, extra };
}

/** A message that arrived while somebody listened, with its number. */
export interface Arrived {
  readonly number: number;
  readonly bytes: Bytes;
}

/** Where one is in listening: what came of each switch so far, and what has come for the one that is asked for. */
export interface ListenState {
  readonly done: readonly { readonly listened: Listened; readonly came: readonly Bytes[] }[];
  readonly came: readonly Bytes[];
  readonly now: Listened | null;
}

/**
 * Goes through the switches with what arrived: what is right leads on to the next by itself; what is not waits until somebody goes on,
 * after the message with a number of `goneOn`.
 */
export function listenThrough(
  steps: readonly ListenStep[],
  arrived: readonly Arrived[],
  goneOn: readonly number[],
): ListenState {
  const done: { listened: Listened; came: readonly Bytes[] }[] = [];
  let came: Bytes[] = [];
  const left = [...goneOn];
  const expects = (): readonly Bytes[] | undefined => steps[done.length]?.expects;
  const next = (listened: Listened): void => {
    done.push({ listened, came });
    came = [];
  };
  for (const { number, bytes } of arrived) {
    while (left.length > 0 && left[0]! < number) {
      left.shift();
      const wanted = expects();
      if (wanted) next(compareHeard(wanted, came));
    }
    const wanted = expects();
    if (!wanted) break;
    came.push(bytes);
    const listened = compareHeard(wanted, came);
    if (listened.outcome === 'right') next(listened);
  }
  for (const _ of left) {
    const wanted = expects();
    if (wanted) next(compareHeard(wanted, came));
  }
  const wanted = expects();
  return { done, came, now: wanted ? compareHeard(wanted, came) : null };
}
