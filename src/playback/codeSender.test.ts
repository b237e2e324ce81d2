import { describe, expect, it } from 'vitest';
import { CODE_RATES, NO_CODE, codePlace, codeMicros, hearCode, type CodeRate } from '../core/clock';
import { demoShow } from '../core/demo';
import { applyEdit, setSongField, setTimeCode, type Show } from '../core/show';
import { placeIn } from './sessionState';
import { played } from './testing/played';

const plain = demoShow();
const song = plain.songs[0]!;

function sending(rate: CodeRate): Show {
  const show = applyEdit(plain, setTimeCode(plain, { sends: ['lamps'], rate })!);
  return applyEdit(show, setSongField(show, song.id, 'code', '01:00:00:00')!);
}

const codeOf = (sent: readonly { portId: string; at: number; bytes: readonly number[] }[]) =>
  sent.filter((m) => m.bytes[0] === 0xf1 || m.bytes[3] === 1);

/** A playback of which all that leaves is caught. */
function caught(show: Show) {
  const p = played(show);
  const sent: { portId: string; at: number; bytes: readonly number[] }[] = [];
  const sends = p.standIns.send.bind(p.standIns);
  p.standIns.send = (portId, at, bytes) => {
    sent.push({ portId, at, bytes });
    sends(portId, at, bytes);
  };
  return { ...p, sent };
}

describe('time code that goes out', () => {
  it.each(CODE_RATES)('says at %s where the song is, to less than a quarter frame', (rate) => {
    const show = sending(rate);
    const { playback, go, sent, now } = caught(show);
    playback.play(song.id, 0);
    go(6000);
    const list = codeOf(sent);
    expect(new Set(list.map((m) => m.portId))).toEqual(new Set(['lamps']));
    const code = list.reduce((c, { at, bytes }) => hearCode(c, at, bytes) ?? c, NO_CODE);
    const place = codePlace(code)!;
    const start = codeMicros({ hours: 1, minutes: 0, seconds: 0, frames: 0 }, rate);
    const here = placeIn(playback.session, now()).place;
    expect(Math.abs(place.place + (now() - place.at) - start - here) / 1000).toBeLessThan(2);
  });

  it('ends with a full message where the song stops, and begins with a whole label in its midst', () => {
    const show = sending('25');
    const { playback, go, sent } = caught(show);
    playback.play(song.id, 0);
    go(3000);
    playback.stop();
    go(200);
    expect(codeOf(sent).at(-1)!.bytes[0]).toBe(0xf0);
    const before = sent.length;
    playback.play(song.id, 9600);
    go(3000);
    const list = codeOf(sent.slice(before));
    expect(list[0]!.bytes[1]! >> 4).toBe(0);
    expect(codePlace(list.reduce((c, { at, bytes }) => hearCode(c, at, bytes) ?? c, NO_CODE))).not.toBeNull();
  });

  it('is none under practice, for a song without a place, and for a show that sends it nowhere', () => {
    const show = sending('25');
    const slow = caught(show);
    slow.playback.play(song.id, 0, null, { speed: 0.8, loop: null });
    slow.go(2000);
    const other = caught(show);
    other.playback.play('rope-ledger', 0);
    other.go(2000);
    const nowhere = caught(applyEdit(show, setTimeCode(show, { sends: [] })!));
    nowhere.playback.play(song.id, 0);
    nowhere.go(2000);
    for (const { sent } of [slow, other, nowhere]) expect(codeOf(sent)).toEqual([]);
  });
});
