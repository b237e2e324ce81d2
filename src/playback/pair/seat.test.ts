import { describe, expect, it } from 'vitest';
import { FENCE, TAKE, newSeat, seatStep, type Seat, type SeatAct, type SeatInput } from './seat';

/** A seat and what its steps said to do, at times in milliseconds. */
function sitting(seat: Seat) {
  let now = seat;
  const acts: SeatAct[] = [];
  const at = (millis: number, input: SeatInput): Seat => {
    const { seat: next, act } = seatStep(now, input, millis * 1000);
    if (act) acts.push(act);
    return (now = next);
  };
  return { at, acts, seat: () => now };
}
const beat = (leads: boolean, term: number, ready = true): SeatInput => ({ kind: 'beat', leads, term, ready });
const WAKE: SeatInput = { kind: 'wake' };
const leading = (): ReturnType<typeof sitting> => sitting(newSeat(true, true, 0));
const following = (): ReturnType<typeof sitting> => {
  const s = sitting(newSeat(false, false, 0));
  s.at(0, { kind: 'ready', ready: true });
  s.at(0, beat(true, 1, false));
  return s;
};
const fence = FENCE / 1000;
const take = TAKE / 1000;

describe('a computer that leads', () => {
  it('falls silent when it hears nothing of one that was ready, well before that takes over', () => {
    const s = leading();
    s.at(0, beat(false, 0));
    s.at(fence - 1, WAKE);
    expect(s.acts).toEqual([]);
    s.at(fence, WAKE);
    expect(s.acts).toEqual(['fall-silent']);
    // What was handed over to ports 350 ms ahead has left by then.
    expect(take - fence).toBeGreaterThanOrEqual(350 + 50);
  });

  it('goes on where the other one was not ready, is known to have left, or said that it leaves', () => {
    const unready = leading();
    unready.at(0, beat(false, 0, false));
    unready.at(60_000, WAKE);
    const gone = leading();
    gone.at(0, beat(false, 0));
    gone.at(100, { kind: 'road', road: 'gone' });
    gone.at(60_000, WAKE);
    const bye = leading();
    bye.at(0, beat(false, 0));
    bye.at(100, { kind: 'bye' });
    bye.at(200, { kind: 'road', road: 'cut' });
    bye.at(60_000, WAKE);
    expect([unready.acts, gone.acts, bye.acts]).toEqual([[], [], []]);
  });

  it('falls silent at once where its own end of the line breaks: the other one takes over as soon as it hears of that', () => {
    const s = leading();
    s.at(0, beat(false, 0));
    s.at(10, { kind: 'road', road: 'cut' });
    expect(s.acts).toEqual(['fall-silent']);
  });

  it('gives way to one that took over later; of two that began, the first one stays', () => {
    const later = leading();
    later.at(0, beat(true, 2));
    expect(later.acts).toEqual(['fall-silent']);
    const first = leading();
    first.at(0, beat(true, 1));
    expect(first.acts).toEqual([]);
    const second = sitting(newSeat(false, true, 0));
    second.at(0, beat(true, 1));
    expect(second.acts).toEqual(['fall-silent']);
  });

  it('gives the lead to who wants it, and not to one that did not know of it', () => {
    const s = leading();
    s.at(0, beat(false, 0));
    s.at(10, { kind: 'wanted', term: 1 });
    expect(s.acts).toEqual([]);
    s.at(20, { kind: 'wanted', term: 2 });
    expect(s.acts).toEqual(['fall-silent']);
  });
});

describe('a computer that follows', () => {
  it('takes over when nothing is heard any more, not sooner', () => {
    const s = following();
    s.at(take - 1, WAKE);
    expect(s.acts).toEqual([]);
    s.at(take, WAKE);
    expect([s.acts, s.seat().leads, s.seat().term]).toEqual([['take'], true, 2]);
  });

  it('takes over at once when the other one is known to be gone', () => {
    const s = following();
    s.at(5, { kind: 'road', road: 'gone' });
    expect(s.acts).toEqual(['take']);
  });

  it('waits where its own end of the line is cut: the other one may live', () => {
    const s = following();
    s.at(5, { kind: 'road', road: 'cut' });
    s.at(take - 1, WAKE);
    expect(s.acts).toEqual([]);
    s.at(take, WAKE);
    expect(s.acts).toEqual(['take']);
  });

  it('takes nothing over without the show, nor of one that did not lead', () => {
    const unready = sitting(newSeat(false, false, 0));
    unready.at(0, beat(true, 1, false));
    unready.at(5, { kind: 'road', road: 'gone' });
    const idle = sitting(newSeat(false, false, 0));
    idle.at(0, { kind: 'ready', ready: true });
    idle.at(0, beat(false, 0));
    idle.at(5, { kind: 'road', road: 'gone' });
    idle.at(60_000, WAKE);
    expect([unready.acts, idle.acts]).toEqual([[], []]);
  });

  it('asks for the lead by hand, and has it with the answer, or without one', () => {
    const answered = following();
    answered.at(10, { kind: 'lead' });
    answered.at(40, beat(false, 1));
    expect([answered.acts, answered.seat().term]).toEqual([['ask', 'take'], 2]);
    const silent = following();
    silent.at(10, { kind: 'lead' });
    silent.at(300, WAKE);
    expect(silent.acts).toEqual(['ask']);
    silent.at(310, WAKE);
    expect(silent.acts).toEqual(['ask', 'take']);
    const alone = sitting(newSeat(true, false, 0));
    alone.at(10, { kind: 'lead' });
    expect(alone.acts).toEqual(['take']);
  });
});

describe('two of which neither leads', () => {
  it('are led by the one that led last, or the first, after a while in which they hear each other', () => {
    const last = sitting({ ...newSeat(false, false, 0), term: 3 });
    const first = sitting(newSeat(true, false, 0));
    for (let t = 0; t <= 1200; t += 100) {
      last.at(t, beat(false, 0));
      first.at(t, beat(false, 3));
    }
    expect([last.acts, first.acts]).toEqual([['take'], []]);
    const even = sitting(newSeat(true, false, 0));
    even.at(0, beat(false, 0));
    even.at(900, beat(false, 0));
    even.at(999, WAKE);
    expect(even.acts).toEqual([]);
    even.at(1000, WAKE);
    expect(even.acts).toEqual(['take']);
  });
});
