import type { Act, Miss } from '../core/meaning';
import { indexShow, sourceName, type Reaction, type SessionAct, type Show, type Turn } from '../core/show';
import { messageWords } from './verdicts';
import { valueWords } from './values';

/** What the session can be told to do, as buttons say it. */
export const SESSION_WORDS: Readonly<Record<SessionAct, string>> = {
  play: 'play',
  stop: 'stop',
  'play-or-stop': 'play, or stop what plays',
  'next-change': 'next change',
  'previous-change': 'previous change',
  'next-song': 'next song',
  'previous-song': 'previous song',
  'choose-next': 'choose the next song, and go on as it is',
  'choose-previous': 'choose the song before, and go on as it is',
  'start-chosen': 'start the chosen song',
  back: 'take the start back',
  interlude: 'the sound between songs, on and off',
  panic: 'all sound off',
};

export const HEARD_WORDS: Readonly<Record<Reaction['hears']['kind'], string>> = {
  note: 'note',
  control: 'control',
  program: 'program',
  pressure: 'pressure',
  bend: 'pitch bend',
};

const SONG_WORDS = { start: 'start', queue: 'next is', select: 'go to' } as const;

/** What a reaction waits for: "control 11 from 20 to 127 on channel 3, from Feet". */
export function hearsWords(show: Show, { portId, kind, channel, number, low, high }: Reaction['hears']): string {
  const named = kind === 'pressure' || kind === 'bend';
  const what = named
    ? HEARD_WORDS[kind]
    : `${number === null ? 'any ' : ''}${HEARD_WORDS[kind]}${number === null ? '' : ` ${number}`}`;
  const whole = kind === 'note' ? low <= 1 && high === 127 : low === 0 && high === 127;
  const range = kind === 'program' || whole ? '' : ` from ${low} to ${high}`;
  const on = channel === null ? '' : ` on channel ${channel}`;
  const port = portId === null ? 'any port' : (indexShow(show).ports.get(portId)?.name ?? 'a port that is gone');
  return `${what}${range}${on}, from ${port}`;
}

const TURN_WORDS: Readonly<Record<Turn, string>> = { flip: 'on and off', on: 'on', off: 'off' };

/** A source in a sentence: "the click", "the samples", "Drums". */
const sourceWord = (show: Show, of: string): string => {
  const name = sourceName(show, of);
  return show.stems.some((s) => s.id === of)
    ? name
    : name === ''
      ? 'something that is gone'
      : `the ${name.toLowerCase()}`;
};

const toneName = (show: Show, id: string): string => indexShow(show).tones.get(id)?.name ?? 'a tone that is gone';
const songName = (show: Show, id: string): string => indexShow(show).songs.get(id)?.title ?? 'a song that is gone';
const soundName = (show: Show, id: string): string =>
  show.audio.find((a) => a.id === id)?.name ?? 'a sound that is gone';

function controlName(show: Show, unitId: string, controlId: string): string {
  const unit = indexShow(show).units.get(unitId);
  const control = unit?.profile.controls.find((c) => c.id === controlId);
  return unit && control ? `${unit.name}: ${control.name}` : 'a control that is gone';
}

/** What a reaction does. */
export function doesWords(show: Show, does: Reaction['does']): string {
  switch (does.kind) {
    case 'session':
      return SESSION_WORDS[does.act];
    case 'song':
      return `${SONG_WORDS[does.how]} ${songName(show, does.songId)}`;
    case 'tone':
      return `tone ${toneName(show, does.toneId)}`;
    case 'move':
      return `move ${show.moves.find((m) => m.id === does.moveId)?.name ?? 'that is gone'}`;
    case 'sample':
      return `play ${soundName(show, does.audioId)}`;
    case 'level':
      return `level of ${sourceWord(show, does.of)}, from ${does.from} to ${does.to} dB`;
    case 'turn':
      return `${sourceWord(show, does.of)} ${TURN_WORDS[does.how]}`;
    case 'part':
      return `the part of ${indexShow(show).players.get(does.playerId)?.name ?? 'a player who is gone'} ${TURN_WORDS[does.how]}`;
    case 'control':
      return `${controlName(show, does.unitId, does.controlId)}, from ${does.curve.from} to ${does.curve.to}`;
    case 'switch':
      return `${controlName(show, does.unitId, does.controlId)}, on from ${does.above}, off at ${does.below}`;
    case 'message': {
      const port = indexShow(show).ports.get(does.portId)?.name ?? 'a port that is gone';
      const number = does.number === null ? '' : ` with number ${does.number}`;
      const channel = does.channel === null ? '' : ` on channel ${does.channel}`;
      return `out of ${port}${number}${channel}`;
    }
  }
}

const MISS_WORDS: Readonly<Record<Miss, string>> = {
  off: 'it is switched off',
  song: 'it is for another song',
  port: 'it waits for another port',
  kind: 'it waits for another kind of message',
  channel: 'it waits for another channel',
  number: 'it waits for another number',
  value: 'the value is out of its range',
  same: 'it is pressed already',
};

/** Why a reaction leaves a message alone. */
export const missWords = (miss: Miss): string => MISS_WORDS[miss];

/** What came of a message. */
export function actWords(show: Show, act: Act): string {
  switch (act.kind) {
    case 'set': {
      const unit = indexShow(show).units.get(act.unitId);
      const control = unit?.profile.controls.find((c) => c.id === act.controlId);
      return unit && control
        ? `${unit.name}: ${control.name}, ${valueWords(control, act.value)}`
        : 'a control that is gone';
    }
    case 'send':
      return `out of ${indexShow(show).ports.get(act.portId)?.name ?? 'a port that is gone'}: ${messageWords(act.bytes)}`;
    case 'level':
      return `level of ${sourceWord(show, act.of)}: ${act.gain.toFixed(1)} dB`;
    case 'session':
    case 'song':
    case 'tone':
    case 'move':
    case 'sample':
    case 'turn':
    case 'part':
      return doesWords(show, act);
  }
}
