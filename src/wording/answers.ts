import { addressOf, labelOf } from '../core/addressing';
import type { Answer } from '../core/ask';
import { toHex } from '../core/midi';
import { indexShow, pageTitle, setOf, songTime, type Show, type Unit } from '../core/show';
import { formatPosition } from '../core/time';
import { clockWords, durationWords, millisWords } from './durations';
import { claimWords } from './encodings';
import { doingWords } from './feet';
import { listWords } from './lists';
import { meaningWords } from './monitor';
import { placeSentence, songsWords } from './places';

import { stateWords } from './verdicts';

/** An answer in words: what it is about, and what is so. */
interface AnswerWords {
  readonly head: string;
  readonly says: string;
}

/** Names beyond this are counted. */
const NAMED = 5;
/** Messages beyond this are counted. */
const SHOWN = 6;

/** Some names in a row, and how many more there are. */
const few = (names: readonly string[]): string =>
  names.length <= NAMED
    ? listWords(names)
    : `${names.slice(0, NAMED - 1).join(', ')} and ${names.length - NAMED + 1} more`;

/** What a question came to, in words. */
export function answerWords(show: Show, answer: Answer): AnswerWords {
  const { units, songs, tones, ports, players } = indexShow(show);
  const unitName = (id: string): string => units.get(id)?.name ?? 'a unit that is gone';
  const titles = (ids: readonly string[]): string => few(ids.map((id) => songs.get(id)?.title ?? ''));
  const usedIn = (ids: readonly string[]): string => (ids.length === 0 ? songsWords(0) : `in ${titles(ids)}`);
  const place = (songId: string, at: number): string => {
    const song = songs.get(songId);
    return song ? formatPosition(songTime(song).bars, at, song.bars) : '';
  };
  const inSong = (songId: string): string => songs.get(songId)?.title ?? '';
  switch (answer.kind) {
    case 'place': {
      const tone = tones.get(answer.toneId ?? '')?.name;
      const rig = answer.rig.map(({ unitId, state }) => {
        const unit = units.get(unitId);
        return unit ? `${unit.monogram} ${stateWords(unit.profile, state)}` : '';
      });
      return {
        head: `${place(answer.songId, answer.at)} of ${inSong(answer.songId)}: ${tone ?? 'no tone yet'}`,
        says: rig.length === 0 ? 'nothing is known to be on' : rig.join(' · '),
      };
    }
    case 'no-place':
      return { head: inSong(answer.songId), says: placeSentence(answer.problem) };
    case 'unit-there': {
      const unit = units.get(answer.unitId)!;
      const named = unit.slots.find((s) => s.index === answer.state.slot)?.name;
      return {
        head: `${unit.name} at ${place(answer.songId, answer.at)} of ${inSong(answer.songId)}`,
        says: `${stateWords(unit.profile, answer.state)}${named ? `, ${named}` : ''}`,
      };
    }
    case 'sent': {
      const lines = answer.sent.slice(0, SHOWN).map(({ unitId, bytes, before }) => {
        const when = before >= 0 ? `${millisWords(before * 1000)} before` : `${millisWords(-before * 1000)} behind`;
        return `${units.get(unitId)?.monogram ?? ''} ${toHex(bytes, ' ').toUpperCase()} ${when}`;
      });
      const more = answer.sent.length - lines.length;
      return {
        head: `What leaves for the bar of ${place(answer.songId, answer.at)}`,
        says: lines.length === 0 ? 'nothing' : lines.join(' · ') + (more > 0 ? ` · ${more} more` : ''),
      };
    }
    case 'slot': {
      const unit = units.get(answer.unitId)!;
      const name = unit.slots.find((s) => s.index === answer.index)?.name ?? 'no name';
      const tonesOf = few(answer.toneIds.map((id) => tones.get(id)?.name ?? ''));
      const calls = answer.toneIds.length === 0 ? 'no tone calls it' : `tones ${tonesOf}; ${usedIn(answer.songIds)}`;
      return {
        head: `${unit.name} ${labelOf(unit.profile.plan, answer.index)}, ${name}`,
        says: `${numberWords(unit, answer.index)}; ${calls}`,
      };
    }
    case 'control': {
      const unit = units.get(answer.unitId)!;
      const { variants, controls } = unit.profile;
      const control = controls.find((c) => c.id === answer.controlId);
      const encoding = control?.encoding ?? variants!.encoding;
      return {
        head: `${unit.name}: ${control?.name ?? `its ${variants!.word}s`}`,
        says: `${claimWords(encoding)}, channel ${unit.channel}`,
      };
    }
    case 'message':
      return {
        head: `${toHex(answer.bytes, ' ').toUpperCase()} on ${ports.get(answer.portId)?.name ?? ''}`,
        says: answer.meanings.map((m) => meaningWords(show, m)).join(' · '),
      };
    case 'tone':
      return { head: tones.get(answer.toneId)?.name ?? '', says: `tone, ${usedIn(answer.songIds)}` };
    case 'song': {
      const { onStage } = setOf(show);
      const at = answer.begins ?? 0;
      const begins = onStage === null ? `${durationWords(at)} after the start` : `at ${clockWords(onStage + at / 60)}`;
      const next = answer.nextSongId === null ? 'nothing follows' : `then ${inSong(answer.nextSongId)}`;
      return {
        head: inSong(answer.songId),
        says: answer.number === null ? 'in no place of this set' : `song ${answer.number}, begins ${begins}; ${next}`,
      };
    }
    case 'unit': {
      const unit = units.get(answer.unitId)!;
      const { input } = unit;
      const from =
        input === null
          ? 'no cable yet'
          : input.from === 'port'
            ? `on ${ports.get(input.portId)?.name ?? ''}`
            : `behind ${unitName(input.unitId)}${input.thru ? ', through its thru' : ''}`;
      const without =
        answer.changes === 0
          ? 'the set wants nothing of it'
          : `${answer.changes} changes in ${answer.songs} songs want it`;
      return { head: unit.name, says: `channel ${unit.channel}, ${from}; ${without}` };
    }
    case 'port': {
      const port = ports.get(answer.portId)!;
      const cable = port.cable === 'din' ? '5-pin cable' : 'USB';
      const names = answer.unitIds.map(unitName);
      return {
        head: port.name,
        says: `port, ${cable}; ${names.length === 0 ? 'no unit hangs on it' : `reaches ${few(names)}`}`,
      };
    }
    case 'player': {
      const player = players.get(answer.playerId)!;
      const names = answer.unitIds.map(unitName);
      return {
        head: `${player.name}, ${player.part}`,
        says: names.length === 0 ? 'plays no unit yet' : `plays ${few(names)}`,
      };
    }
    case 'switch': {
      const unit = units.get(answer.unitId)!;
      const sender = unit.profile.senders.find((s) => s.id === answer.senderId);
      const lines = answer.does.slice(0, SHOWN).map(({ pageId, does }) => {
        const page = pageId === null ? 'everywhere' : pageTitle(show, unit.id, pageId);
        return `${page}: ${doingWords(show, unit.id, does)}`;
      });
      const more = answer.does.length - lines.length;
      return {
        head: `${sender?.name ?? ''} of ${unit.name}`,
        says: lines.length === 0 ? 'does nothing on any page' : lines.join(' · ') + (more > 0 ? ` · ${more} more` : ''),
      };
    }
  }
}

/** A preset's number, in both countings. */
function numberWords({ profile: { plan } }: Unit, index: number): string {
  const address = addressOf(plan, index);
  if (!address) return 'no program calls it';
  const bank = plan.bank.send === 'none' ? '' : `bank ${address.bank}, `;
  return `${bank}program ${address.program} from 0, ${address.program + 1} from 1`;
}
