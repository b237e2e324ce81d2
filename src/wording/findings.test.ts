import { remedyEffect } from './remedies';
import { describe, expect, it } from 'vitest';
import type { Finding, FindingCode, FindingData, FindingPlace } from '../core/checks';
import { finding } from '../core/checks/finding';
import { findingSentence, findingSentenceInSong, fixWords } from './findings';

const place: FindingPlace = { in: 'song', songId: 's', at: 0 };
const at = { song: 'Fog Bell', at: '17|3' };
const unit = { ...at, unit: 'Tarn' };
const control = { ...unit, control: 'Mix' };
const onFloor = { controller: 'Treadle Ten', page: 'page 02 Slack Tide', switch: 'Switch 4' };

/** One example a code, with what it says and what the button of its fix says. */
const EXAMPLES: { readonly [C in FindingCode]: readonly [data: FindingData[C], says: string, fix?: string] } = {
  'rig.channel-differs': [
    { unit: 'Tarn', sends: 7, listens: 9 },
    'Tarn is sent to on channel 7, but listens on 9: it will do nothing at all.',
    'Send on channel 9',
  ],
  'rig.channel-shared': [
    { unit: 'Tarn', other: 'Harrow', channel: 6 },
    'Tarn also hears what is sent to Harrow on channel 6: they hang on one cable.',
  ],
  'rig.exclusive-shared': [
    { unit: 'Tarn', other: 'Harrow', control: 'Locate' },
    'Tarn also obeys the system exclusive message of Harrow: Locate has the same one on the same cable.',
  ],
  'rig.left-out': [
    { unit: 'Field Box', where: 'Four taps', controls: ['Tap'] },
    'Field Box has no Tap tonight: what Four taps does with it is left out.',
  ],
  'rig.no-port': [{ unit: 'Tarn' }, 'Tarn has no cable from a port, so nothing reaches it.'],
  'rig.port-off': [{ unit: 'Tarn', port: 'Board' }, 'Tarn is on Board, which is switched off.', 'Switch Board on'],
  'rig.port-unused': [{ port: 'Board' }, 'No cable is in Board, but it is switched on.', 'Switch Board off'],
  'rig.socket-shared': [
    { socket: 'Board', units: ['Tarn', 'Harrow'] },
    'Board is one 5-pin socket, but 2 cables leave it (Tarn and Harrow). Chain the units by thru, use another port, or set "Splitter" there if one is.',
    'Chain them by thru',
  ],
  'tone.told-elsewhere': [
    { tone: 'Lead', unit: 'Oxbow', by: ['Quillback'], wants: '3', gets: '1' },
    'Lead wants Oxbow on 3, but Quillback calls it to 1 by a relay rule.',
    'Want 1 there',
  ],
  'tone.only-told': [
    { tone: 'Lead', unit: 'Oxbow', by: ['Quillback'], what: 'Presence' },
    'Lead sets Presence of Oxbow, but nothing can be sent there: Quillback can only call its presets.',
  ],
  'song.tone-differs': [
    { ...control, tone: 'Lead', first: '9|1', from: 'Break' },
    'Fog Bell, 17|3: Lead sounds other than at 9|1: Mix of Tarn is left as Break set it.',
    'Have Lead set it as at 9|1',
  ],
  'rig.loop': [{ way: ['Board', 'Tarn'] }, 'A message can go round and round: Board → Tarn → Board.', 'Open the loop'],
  'rig.relay-cycle': [{ way: ['Tarn', 'Harrow'] }, 'Relay rules set each other off in a circle: Tarn → Harrow → Tarn.'],
  'map.two-on-one': [
    { unit: 'Tarn', first: 'Mix', second: 'Size', on: 'control', number: 70 },
    'Mix and Size of Tarn are both on control 70: whatever is sent moves both.',
  ],
  'map.reserved-number': [
    { unit: 'Tarn', control: 'Mix', number: 38 },
    'Mix of Tarn is on control 38, which has a fixed meaning in MIDI.',
  ],
  'map.house-differs': [
    { unit: 'Tarn', control: 'Hold', number: 75, house: 80, name: 'Freeze' },
    'Hold of Tarn is on control 75; the shared control number of Freeze is 80.',
    'Put it on 80',
  ],
  'map.generic-name': [
    { unit: 'Tarn', control: 'Expression', number: 16, named: 11 },
    '"Expression" is MIDI\'s general name of control 11; on Tarn it is control 16. Give it the unit\'s own name.',
  ],
  'map.state-undescribed': [
    { unit: 'Tarn', label: '014', missing: ['channel', 'EQ'] },
    'Tarn is called to 014, but nobody wrote down how its panel stands there: channel, EQ.',
  ],
  'map.no-program': [
    { unit: 'Tarn', label: '014', name: 'Boathouse' },
    "No program of Tarn's own table calls 014 Boathouse, which is used.",
  ],
  'map.slot-lost': [
    { unit: 'Tarn', name: 'Boathouse', tones: 2 },
    '"Boathouse" is no longer in Tarn\'s preset list; 2 tones want it.',
  ],
  'map.read-only': [
    { unit: 'Tarn', label: 'factory 3', group: 'factory' },
    'Tarn can store nothing in its group "factory", but a relay rule calls what should be stored as factory 3.',
  ],
  'map.slot-unnamed': [{ unit: 'Tarn', label: '014' }, '014 of Tarn is used, but nobody wrote down what is in it.'],
  'song.late': [
    {
      ...unit,
      millis: 81.6,
      cause: { kind: 'previous', on: 'Tarn', needs: 141.6, has: 60 },
      fix: { how: 'shift', millis: 81.7, name: '' },
    },
    'Fog Bell, 17|3: Tarn is 82 ms late, because it takes 142 ms and the change before it is only 60 ms earlier.',
    'Move it 82 ms later',
  ],
  'song.early': [{ ...unit, millis: 320.4 }, 'Fog Bell, 17|3: Tarn changes 320 ms too early.'],
  'song.no-match': [
    {
      ...unit,
      unit: 'Field Box',
      tone: 'Fog Lead',
      missing: [
        { what: 'slot', name: 'Fog' },
        { what: 'control', name: 'Drive' },
      ],
    },
    'Fog Bell, 17|3: Fog Lead wants preset Fog and control Drive, and Field Box has nothing in its place tonight.',
  ],
  'song.never': [
    { ...unit, why: 'settling' },
    'Fog Bell, 17|3: Tarn never gets there: it was still settling after a recall.',
  ],
  'song.tempo-missed': [
    { ...unit, by: 'taps', wanted: 140, heard: 140, taps: 2 },
    'Fog Bell, 17|3: Tarn does not take the tempo of 140: only 2 of the four taps it needs fit in.',
  ],
  'song.trail-cut': [
    { ...unit, effect: 'Reverb' },
    'Fog Bell, 17|3: Reverb of Tarn should ring out, but is cut when the unit loads a preset.',
  ],
  'song.stored-between': [
    { ...unit, millis: 80, word: 'scene', from: 'Dry', to: 'Wide', preset: 'H6' },
    'Fog Bell, 17|3: Tarn sounds 80 ms in scene Dry before Wide is there.',
    'Store H6 in the unit with Wide, and note it',
  ],
  'song.inside-settle': [unit, 'Fog Bell, 17|3: a message reaches Tarn while it settles after a recall, and is lost.'],
  'song.outside': [
    { ...at, bars: 12, early: false },
    'Fog Bell: something stands at 17|3, past the last of 12 bars.',
    'Make the song longer',
  ],
  'song.tones-clash': [
    { ...unit, first: 'Lead', second: 'Clean' },
    'Fog Bell, 17|3: Lead and Clean want different things of Tarn on one beat; Clean wins.',
    'Take Lead away',
  ],
  'song.sweeps-overlap': [
    control,
    'Fog Bell, 17|3: two sweeps move Mix of Tarn at once; it jumps between them.',
    'End the first where the second begins',
  ],
  'song.selector-ramp': [
    { song: 'Fog Bell', unit: 'Tarn', control: 'Channel', from: '3|1', to: '3|2' },
    'Fog Bell, 3|1 to 3|2: a ramp runs through Channel of Tarn, which steps through all on the way.',
    'One step to where it ends',
  ],
  'song.other-channel': [
    { ...unit, channel: 3, listens: 7 },
    'Fog Bell, 17|3: a message goes out on channel 3, but Tarn listens on 7.',
  ],
  'song.not-understood': [{ ...unit, bytes: 'b0630a' }, 'Fog Bell, 17|3: B0 63 0A means nothing to Tarn.'],
  'song.no-such-slot': [{ ...unit, program: 99 }, 'Fog Bell, 17|3: program 99 calls no slot of Tarn.'],
  'song.bank-unknown': [
    unit,
    'Fog Bell, 17|3: a program is sent to Tarn with no bank before it; which slot it calls depends on what came before.',
  ],
  'song.flip-unknown': [
    control,
    'Fog Bell, 17|3: Mix of Tarn only turns over, and nothing before says in which state it is.',
  ],
  'song.no-opening': [
    { song: 'Fog Bell', opening: 'Still Water', units: ['Tarn', 'Harrow'] },
    'Fog Bell uses Tarn and Harrow, which its opening, Still Water, does not set.',
    'Open with the first of its tones that sets them all',
  ],
  'song.code-early': [
    { song: 'Fog Bell', has: 120, needs: 400 },
    'Fog Bell: time code runs only 120 ms before it, and what it sends ahead takes 400 ms.',
  ],
  'song.two-leads': [
    { song: 'Fog Bell', port: 'Pads' },
    'Fog Bell follows time code, and the clock of Pads too: only one can lead it.',
    'Follow time code only',
  ],
  'song.code-unread': [
    { song: 'Fog Bell', code: '01:00:00:29', rate: '25' },
    'Fog Bell: its place in the time code, 01:00:00:29, is not there at 25 frames a second.',
  ],
  'song.clock-too-long': [
    { song: 'Fog Bell', port: 'Board', pulses: 480000, limit: 300000 },
    'Fog Bell: its clock on Board would have 480,000 pulses. Up to 300,000 are sent, so none is.',
    'Send no clock on Board',
  ],
  'song.port-full': [{ ...at, port: 'Board', percent: 63 }, 'Fog Bell, 17|3: Board is 63 % full for a second.'],
  'song.off-rest': [control, 'Fog Bell, 17|3: a sweep leaves Mix of Tarn away from its rest.', 'Leave it at rest'],
  'song.effect-left': [control, 'Fog Bell, 17|3: Mix of Tarn stays on after its sweep.', 'Let the sweep switch it'],
  'song.duplicate': [{ ...at, cueId: 'c' }, 'Fog Bell, 17|3: the same cue stands there twice.', 'Take one away'],
  'song.no-change': [
    { ...at, what: 'Fog Lead' },
    'Fog Bell, 17|3: Fog Lead changes nothing; the rig is like that already.',
    'Take it away',
  ],
  'song.section-state': [
    { ...control, section: 'Coda', from: 'Haul' },
    'Fog Bell, 17|3: who goes from Haul straight to Coda still has Mix of Tarn on.',
  ],
  'rig.firmware-differs': [
    { unit: 'Tarn', mapped: '01040000', answered: '02000000' },
    'Tarn answered with version 02000000, but its map is for 01040000: what messages do may have changed.',
    'Use the map for that version',
  ],
  'rig.other-unit': [
    { unit: 'Tarn', expected: '7D 0400 0000', answered: '7D 0500 0000' },
    'Something else answered as Tarn: 7D 0500 0000 in place of 7D 0400 0000 (maker, family, model).',
  ],
  'night.launch-shared': [
    { set: 'Evening', songs: ['Fog Bell', 'Early Gull'], message: '9024' },
    'Fog Bell and Early Gull of Evening wait for the same message: only Fog Bell is started by it.',
  ],
  'night.code-overlap': [
    { song: 'Fog Bell', before: 'Early Gull', free: '01:04:00:12' },
    'Fog Bell begins in the time code before Early Gull is over. It has room from 01:04:00:12 on.',
    'Begin at 01:04:00:12',
  ],
  'night.code-loop': [
    { port: 'Pads' },
    'Time code goes out on Pads, where it comes in: a machine that passes it on would send us our own.',
    'Send no time code on Pads',
  ],
  'night.launch-unheard': [
    { song: 'Fog Bell', reaction: 3 },
    'Reaction 3 swallows the message that Fog Bell waits for: the song is never started by it.',
  ],
  'night.fires-itself': [
    { reaction: 2, others: 1 },
    'What reaction 2 sends comes back by way of others, and sets it off again without end.',
    'Switch it off',
  ],
  'night.trigger-sounds': [
    { what: 'Fog Bell', units: ['Tarn'], passedOn: false },
    'The note that starts Fog Bell also reaches Tarn, wired behind the controller: it may sound.',
    'Let it go no further',
  ],
  'night.reaction-unheard': [
    { reaction: 2, by: 1 },
    'Reaction 1 swallows all that reaction 2 waits for: it never acts.',
  ],
  'feet.full': [
    { ...onFloor, kind: 'program', wants: 9, holds: 8 },
    'Treadle Ten, page 02 Slack Tide, Switch 4 would have to hold 9 program changes; the controller holds 8 a switch. What is too much is left out.',
  ],
  'feet.trigger': [
    { ...onFloor, trigger: 'double' },
    'Treadle Ten, page 02 Slack Tide, Switch 4 does something on a double press, which this controller does not know.',
    'Take that away',
  ],
  'feet.jump': [
    { ...onFloor, together: true },
    'Treadle Ten, page 02 Slack Tide, Switch 4 goes to another page and does something else too: this controller can only do one of them.',
  ],
  'feet.jump-lost': [
    onFloor,
    'Treadle Ten, page 02 Slack Tide, Switch 4 goes to a page that the controller has no place for.',
  ],
  'feet.jump-here': [
    onFloor,
    'Treadle Ten, page 02 Slack Tide, Switch 4 goes to the page that it is on: it does nothing.',
    'Take that away',
  ],
  'feet.name': [
    { ...onFloor, name: 'Fog Lead, Wide', shown: 'Fog Lead' },
    'Treadle Ten, page 02 Slack Tide, Switch 4 is called Fog Lead, Wide; its display shows Fog Lead.',
    'Call it Fog Lead',
  ],
  'feet.no-call': [
    { ...onFloor, trigger: 'long' },
    'Treadle Ten, page 02 Slack Tide, Switch 4: no number is left by which the computer could tell its holding from others, so it does nothing there.',
  ],
  'feet.silent': [
    onFloor,
    'Treadle Ten, page 02 Slack Tide, Switch 4 has a name but sends nothing.',
    'Clear the switch',
  ],
  'feet.unheard': [
    onFloor,
    'Treadle Ten, page 02 Slack Tide, Switch 4 does something that only the computer can do, but does not tell the computer.',
    'Tell the computer',
  ],
  'feet.flip-unknown': [
    { ...onFloor, unit: 'Tarn', control: 'Hold' },
    'Treadle Ten, page 02 Slack Tide, Switch 4 wants Hold of Tarn in a certain state, but it only turns over: without the computer nobody knows which way.',
  ],
  'feet.boat-unreached': [
    { controller: 'Treadle Ten', unit: 'Tarn' },
    'Switches of Treadle Ten call Tarn, but no cable leads there when the computer is gone.',
    'Plug Tarn in behind the last unit',
  ],
  'feet.boat-shared': [
    { controller: 'Treadle Ten', unit: 'Tarn', other: 'Harrow', channel: 6 },
    'When the computer is gone, Tarn shares a cable with Harrow and hears what is sent to it on channel 6.',
  ],
  'feet.passed-on': [
    { controller: 'Treadle Ten', port: 'Feet' },
    'Feet passes on what Treadle Ten sends, and the computer does the same once more: units get it twice.',
    'Have Feet pass nothing on',
  ],
  'feet.call-taken': [
    { ...onFloor, reaction: 3 },
    'Reaction 3 takes the message that tells the computer of Switch 4 of Treadle Ten, page 02 Slack Tide: what the switch says is not done.',
  ],
  'feet.tone-unreached': [
    { tone: 'Choir', song: 'Fog Bell', controller: 'Treadle Ten' },
    'No switch of Treadle Ten calls Choir in Fog Bell: without the computer it cannot be played.',
    'Put it on a free switch of Fog Bell',
  ],
  'feet.tone-far': [
    { tone: 'Choir', song: 'Fog Bell', controller: 'Treadle Ten', presses: 3 },
    'In Fog Bell Choir takes 3 presses of Treadle Ten.',
    'Put it on a free switch of Fog Bell',
  ],
  'feet.hurried': [
    { ...at, controller: 'Treadle Ten', needs: 1, has: 0.52 },
    'Fog Bell, 17|3: the presses that lead there on Treadle Ten take 1.0 s, and the change before is only 0.5 s earlier.',
  ],
  'feet.dead-end': [
    { controller: 'Treadle Ten', page: 'Encore' },
    'No switch of Treadle Ten leads away from the page Encore.',
  ],
  'feet.page-lost': [
    { controller: 'Treadle Ten', page: 'Encore', pages: 8 },
    'Treadle Ten has no place for the page Encore: it holds 8.',
  ],
  'feet.label-clash': [
    { ...onFloor, shown: 'Fog', names: ['Fog Bank', 'Fog Lead'] },
    'On page 02 Slack Tide of Treadle Ten Fog Bank and Fog Lead all show Fog.',
  ],
  'feet.pedal-control': [
    { ...onFloor, switch: 'Pedal 1' },
    'Treadle Ten, page 02 Slack Tide, Pedal 1 moves a control that no single control number moves: a pedal of a controller cannot.',
    'Clear the pedal',
  ],
  'feet.pedal-twice': [
    { ...onFloor, switch: 'Pedal 2', other: 'Pedal 1', number: 11 },
    'Treadle Ten, page 02 Slack Tide, Pedal 2 and Pedal 1 both send control 11: they move the same thing.',
  ],
  'feet.pedal-reacted': [
    { ...onFloor, switch: 'Pedal 2', reaction: 4 },
    'Treadle Ten, page 02 Slack Tide, Pedal 2 moves a control, and reaction 4 makes something else of it.',
  ],
  'tone.flip-unknown': [
    { tone: 'Held Breath', unit: 'Tarn', control: 'Hold' },
    'Held Breath wants Hold of Tarn in a certain state, but it only turns over, and nobody wrote down how the preset stores it.',
  ],
};

const of = <C extends FindingCode>(code: C, data: FindingData[C]): Finding => finding(code, 'warning', place, data);

describe('a finding', () => {
  it.each(Object.entries(EXAMPLES))('%s is said in a sentence', (code, [data, says, fix]) => {
    const f = of(code as FindingCode, data as never);
    expect(findingSentence(f)).toBe(says);
    expect(fixWords(f)).toBe(fix ?? 'Mend it');
  });

  it('is said without its song where that is known', () => {
    expect(findingSentenceInSong(of('song.early', { ...unit, millis: 320 }))).toBe(
      '17|3: Tarn changes 320 ms too early.',
    );
    // Where the song is the subject, it stays.
    expect(findingSentenceInSong(of('song.no-opening', { song: 'Fog Bell', opening: '', units: ['Tarn'] }))).toBe(
      'Fog Bell has no opening: Tarn is left as the song before left it.',
    );
    expect(findingSentenceInSong(of('rig.no-port', { unit: 'Tarn' }))).toBe(
      'Tarn has no cable from a port, so nothing reaches it.',
    );
  });

  it('gives long bytes by their beginning and their number', () => {
    const long = of('song.not-understood', { ...unit, bytes: `f07d${'55'.repeat(98)}f7` });
    expect(findingSentence(long)).toBe(
      'Fog Bell, 17|3: F0 7D 55 55 55 55 55 55 55 55 55 55 … (101 bytes) means nothing to Tarn.',
    );
  });
});

describe('why something is late', () => {
  const late = (cause: FindingData['song.late']['cause']): string =>
    findingSentence(of('song.late', { ...unit, millis: 12.34, cause, fix: null }));

  it.each([
    [{ kind: 'start', on: 'Tarn', needs: 181.6, has: 100 }, 'it takes 182 ms and the song starts only 100 ms before'],
    [
      { kind: 'previous', on: 'Quillback', needs: 240, has: 75 },
      'Quillback, which tells it, takes 240 ms and the change before it is only 75 ms earlier',
    ],
    [{ kind: 'cable', port: 'Rack', others: ['Harrow'] }, 'Rack is busy with Harrow'],
  ] as const)('%j', (cause, words) => {
    expect(late(cause)).toContain(words);
  });

  it('is said to be unknown where nobody can tell', () => {
    expect(late({ kind: 'unknown' })).toMatch(/^Fog Bell, 17\|3: Tarn is 12 ms late, because .*\.$/);
  });
});

describe('what mends a late change', () => {
  const words = (how: NonNullable<FindingData['song.late']['fix']>['how']): string =>
    fixWords(
      of('song.late', {
        ...unit,
        millis: 5,
        cause: { kind: 'unknown' },
        fix: { how, millis: 20, name: 'Board' },
      }),
    );
  it.each([
    ['pre-roll', 'Let the opening leave 20 ms earlier'],
    ['earlier', 'Have every change of Board land 20 ms before its time'],
    ['guard', 'Leave Board 20 ms more to settle'],
    ['variant', 'Call Board of the preset that is on, and load none'],
    ['shift', 'Move it 20 ms later'],
    ['thinner', 'Thin the sweep: a value every 20 ms'],
    ['port', 'Put the unit on Board'],
    ['sent', 'Send it on its beat, let the old sound ring'],
    ['before', 'Move it to Board, the beat before'],
    ['leave', 'Leave Board out of it'],
  ] as const)('%s: %s', (how, says) => {
    expect(words(how)).toBe(says);
  });

  it.each([
    ['pre-roll', 'sounds the same; the song begins 20 ms later after its start'],
    ['earlier', 'heard up to 20 ms before the beat'],
    ['guard', 'heard on its beat; changes that crowd it wait a little longer'],
    ['variant', 'Board sounds in place of another preset, without a gap'],
    ['shift', 'heard 20 ms behind its beat'],
    ['thinner', 'the sweep moves in steps of 20 ms'],
    ['port', 'sounds the same'],
    ['sent', 'heard 20 ms or so behind its beat'],
    ['before', 'heard a beat early'],
    ['leave', 'Board stays as it was before'],
  ] as const)('%s sounds so: %s', (how, says) => {
    expect(remedyEffect({ how, millis: 20, name: 'Board' })).toBe(says);
  });
});
