import { labelOf, type Trigger } from '../core/addressing';
import { doingName, type MemoryDifference, type Press, type TransferEnd } from '../core/feet';
import { toHex, type Bytes } from '../core/midi';
import { indexShow, pageTitle, type Doing, type Show } from '../core/show';
import { SESSION_WORDS, doesWords } from './reactions';
import { valueWords } from './values';

/** What of a switch does something, as a heading. */
export const TRIGGER_HEADS: Readonly<Record<Trigger, string>> = {
  press: 'Press',
  again: 'Second press',
  release: 'Release',
  long: 'Hold',
  double: 'Double press',
};

const SONG_WORDS = { start: 'start', queue: 'comes next:', select: 'go to' } as const;

/** What a foot switch does: "Fog Lead", "stop", "Tarn: Mix, 40 %", "to page 02 Slack Tide". */
export function doingWords(show: Show, unitId: string, does: Doing): string {
  switch (does.kind) {
    case 'session':
      return SESSION_WORDS[does.act];
    case 'song':
      return `${SONG_WORDS[does.how]} ${doingName(show, does)}`;
    case 'turn':
    case 'part':
      return doesWords(show, does);
    case 'sample':
      return `sound ${doingName(show, does)}`;
    case 'control': {
      const unit = indexShow(show).units.get(does.unitId);
      const control = unit?.profile.controls.find((c) => c.id === does.controlId);
      return control ? `${unit!.name}: ${control.name}, ${valueWords(control, does.value)}` : 'a control that is gone';
    }
    case 'message':
      return `bytes ${toHex(pairs(does.bytes), ' ').toUpperCase()}`;
    case 'page':
      if (does.to === 'next') return 'to the next page';
      if (does.to === 'previous') return 'to the page before';
      return `to ${pageTitle(show, unitId, does.to.pageId) || 'a page that is gone'}`;
    case 'tone':
    case 'move':
      return doingName(show, does) || 'something that is gone';
  }
}

const pairs = (hex: string): Bytes => (hex.match(/../g) ?? []).map((b) => Number.parseInt(b, 16));

/** One press of a fall-back sheet: "Switch 4", "page up". */
export function pressWords(show: Show, unitId: string, press: Press): string {
  if (press.kind === 'step') return press.by > 0 ? 'page up' : 'page down';
  const unit = indexShow(show).units.get(unitId);
  return unit?.profile.senders.find((s) => s.id === press.switchId)?.name ?? press.switchId;
}

const AT = {
  begin: 'at the start',
  block: 'in the middle',
  end: 'at the end',
  read: 'while it was read back',
} as const;

const REFUSED = {
  incomplete: 'parts of it never arrived',
  damaged: 'what arrived is damaged',
  unreadable: 'it cannot read it',
  'too-large': 'it is more than it holds',
  'not-begun': 'it lost the thread',
} as const;

/** How a transfer ended. */
export function transferWords(name: string, end: TransferEnd): string {
  switch (end.how) {
    case 'identical':
      return `${name} has stored the pages. They were read back and are the same, byte for byte.`;
    case 'read':
      return `${name} was read.`;
    case 'differs':
      return `${name} says that it stored the pages, but holds something else. Transfer again; what differs stands below.`;
    case 'silent':
      return `${name} does not answer ${AT[end.at]}. What it held before is still there. Is it set to receive, and are both cables plugged in?`;
    case 'refused':
      return `${name} does not take the pages: ${REFUSED[end.why]}. What it held before is still there.`;
    case 'unreadable':
      return `What ${name} answers cannot be read: it may be programmed by something else.`;
    case 'cancelled':
      return end.written
        ? `Cancelled while it was read back: ${name} has stored the pages, but they were not compared.`
        : `Cancelled. ${name} still holds what it held before.`;
  }
}

/** In what a controller differs from its pages, in a sentence. */
export function memoryDifferenceWords(show: Show, unitId: string, d: MemoryDifference): string {
  const unit = indexShow(show).units.get(unitId);
  const page = unit ? labelOf(unit.profile.plan, d.page) : String(d.page + 1);
  const senderAt = (place: number): string => {
    const id = unit?.profile.controller?.switches[place]?.id;
    return unit?.profile.senders.find((s) => s.id === id)?.name ?? `switch ${place + 1}`;
  };
  const bytes = (list: readonly Bytes[]): string =>
    list.length === 0 ? 'nothing' : list.map((b) => toHex(b, ' ').toUpperCase()).join(' · ');
  switch (d.what) {
    case 'page-missing':
      return `${page} ${d.name} is not in the controller.`;
    case 'page-extra':
      return `${page} ${d.name} is in the controller, but not here.`;
    case 'page-name':
      return `${page} is called ${d.found || 'nothing'} there, ${d.wanted || 'nothing'} here.`;
    case 'switch-name':
      return `${page}, ${senderAt(d.switch)} is called ${d.found || 'nothing'} there, ${d.wanted || 'nothing'} here.`;
    case 'messages':
      return `${page}, ${senderAt(d.switch)}, ${TRIGGER_HEADS[d.trigger].toLowerCase()}: sends ${bytes(d.found)} there, ${bytes(d.wanted)} here.`;
    case 'jump':
      return `${page}, ${senderAt(d.switch)}, ${TRIGGER_HEADS[d.trigger].toLowerCase()}: goes to another page there than here.`;
    case 'pedal':
      return `${page}, pedal ${d.pedal + 1} is set otherwise there than here.`;
  }
}
