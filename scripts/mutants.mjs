// Small faults, one at a time, each of which the tests beside it have to find: npm run mutants [part of a file's name]
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { packages, root } from './ready.mjs';

/** In a file, what stands there, what stands there instead, and the tests that have to fail. */
const MUTANTS = [
  // What an examination from outside found alive.
  ['src/playback/clockIn.ts', '(low + high * 128)', 'low', 'src/playback/clockIn.test.ts'],
  ['src/core/compile/clock.ts', 'position >> 7', '0', 'src/core/compile/clock.test.ts'],
  [
    'src/core/rig/relay.ts',
    '[...bySlot, ...relays.filter(',
    '[...bySlot.toReversed(), ...relays.filter(',
    'src/core/rig',
  ],
  ['src/core/rig/relay.ts', 'r.variant !== null && r.variant === variant', 'r.variant === variant', 'src/core/rig'],
  [
    'src/playback/session.ts',
    'handed > now + LOOK_AHEAD ? [now, handed] : [now]',
    '[now]',
    'src/playback/ahead.test.ts',
  ],
  [
    'src/core/sound/soundLine.ts',
    "t.role !== 'part' || (t.playerId !== null",
    'true || (t.playerId !== null',
    'src/core/sound',
  ],
  ['src/core/addressing/encodings/scale.ts', '(wire - from) / (to - from)', 'wire / to', 'src/core/rig'],
  ['src/playback/clockIn.ts', '60e6 / (period * BEAT)', '60.6e6 / (period * BEAT)', 'src/playback/clockIn.test.ts'],
  [
    'src/core/show/tonight.ts',
    'song.taps.filter((t) => !off.has(t.unitId))',
    'song.taps',
    'src/core/show/tonight.test.ts',
  ],
  [
    'src/core/show/commands/profiles.ts',
    'r.when.variant < variantCount(sound)',
    'true',
    'src/core/show/commands/mapCommands.test.ts',
  ],
  [
    'src/core/meaning/storingSteps.ts',
    'when.variant === null ? null :',
    'when.variant === -1 ? null :',
    'src/core/meaning/wiring.test.ts',
  ],
  [
    'src/core/show/frame.ts',
    'stretchSweep(s, place(s.from), place(s.to))',
    'stretchSweep(s, place(s.from), Math.min(place(s.to), songTime(next).end))',
    'src/core/show/frame.test.ts',
  ],
  [
    'src/core/meaning/compareShows.ts',
    "was.name === x.name || of === 'reaction'",
    "of === 'reaction'",
    'src/core/meaning/compareShows.test.ts',
  ],
  [
    'src/core/simulate/judgeStates.ts',
    'GRAIN: Micros = 0.01',
    'GRAIN: Micros = 1',
    'src/core/simulate/verdict.test.ts',
  ],
  // What plans and the simulated rig share.
  ['src/core/rig/unitState.ts', "start?.variant ?? 'stored'", 'start?.variant ?? before.variant', 'src/core/rig'],
  ['src/core/rig/unitState.ts', 'if (engage !== null)', 'if (engage !== null && recallLoads.controls)', 'src/core/rig'],
  [
    'src/core/rig/unitState.ts',
    "typeof before === 'number' ? 1 - before : undefined",
    "typeof before === 'number' ? 1 - before : 1",
    'src/core/rig',
  ],
  [
    'src/core/rig/unitState.ts',
    'aim.variant !== undefined && state.variant',
    'aim.variant && state.variant',
    'src/core/rig',
  ],
  [
    'src/core/rig/understand.ts',
    'message.control === 98 || message.control === 99',
    'message.control === 99',
    'src/core/rig',
  ],
  ['src/core/rig/understand.ts', 'memory.delete(98);\n    memory.delete(99);', 'memory.delete(99);', 'src/core/rig'],
  // Bytes, addresses, time.
  ['src/core/addressing/plan.ts', 'index % plan.perBank }', 'index % 128 }', 'src/core/addressing'],
  ['src/core/addressing/encodings/zonesEncoding.ts', '(value + 0.5) * 128', 'value * 128', 'src/core/addressing'],
  [
    'src/core/midi/messages.ts',
    '(status & 0xe0) === 0xc0 ? 1 : 2',
    '(status & 0xf0) === 0xc0 ? 1 : 2',
    'src/core/midi',
  ],
  ['src/core/time/tempo.ts', 'Math.log1p((s.slope * x) / s.bpm)', '((s.slope * x) / s.bpm)', 'src/core/time'],
  // Plans.
  [
    'src/core/compile/schedule/exact.ts',
    'bound += jobs[i]!.deadline - end;',
    'bound += 2 * (jobs[i]!.deadline - end);',
    'src/core/compile/schedule',
  ],
  ['src/core/compile/schedule/exact.ts', 'suffix.push(i);', 'suffix.unshift(i);', 'src/core/compile/schedule'],
  [
    'src/core/compile/schedule/exact.ts',
    'if (compareCost(cost, best.cost) >= 0) return;',
    'if (compareCost(cost, best.cost) <= 0) return;',
    'src/core/compile/schedule',
  ],
  [
    'src/core/compile/schedule/twoPasses.ts',
    'Math.max(job.deadline, ends[i]!), before, latest[i]!',
    'job.deadline, before, latest[i]!',
    'src/core/compile/schedule',
  ],
  [
    'src/core/compile/schedule/job.ts',
    'Math.max(ready, ends[on]! + gap)',
    'Math.max(ready, ends[on]!)',
    'src/core/compile/schedule',
  ],
  ['src/core/compile/clock.ts', 'POSITION_TICKS - 1e-9', 'POSITION_TICKS - 1', 'src/core/compile/clock.test.ts'],
  // The simulated rig and its verdicts.
  [
    'src/core/simulate/judgeStates.ts',
    'wire = (bytes + thrus * Math.max(3, ...lengths))',
    'wire = bytes',
    'src/core/simulate/verdict.test.ts',
  ],
  ['src/core/simulate/unit.ts', 'deaf || this.waiting.length > 0', 'deaf', 'src/core/simulate'],
  [
    'src/core/simulate/unit.ts',
    "spec.listens !== 'all' && channel !== spec.listens",
    'channel !== spec.listens',
    'src/core/simulate',
  ],
  // Night, feet, files.
  ['src/playback/clockIn.ts', 'CLOCKS_A_POSITION - 1 }', 'CLOCKS_A_POSITION }', 'src/playback/clockIn.test.ts'],
  ['src/playback/torn.ts', 'if (due <= now) continue;', '', 'src/playback/torn.test.ts'],
  [
    'src/core/show/tonight.ts',
    "how.how === 'off') return { ...unit, input: null, returns: null }",
    "how.how === 'off') return { ...unit, input: null }",
    'src/core/show/tonight.test.ts',
  ],
  ['src/core/feet/machine.ts', 'at - was.at < LONG_PRESS', 'at - was.at <= LONG_PRESS', 'src/core/feet'],
  ['src/core/formats/csv/table.ts', 'while (found.has(keyOf(name)));', 'while (false);', 'src/core/formats/csv'],
  ['src/core/formats/csv/cueTable.ts', 'Math.round(at * 1000)', 'at', 'src/core/formats/csv'],
  [
    'src/app/state/saving.ts',
    "is.save === 'conflict' || is.save === 'gone'",
    "is.save === 'conflict'",
    'src/app/state/saving.test.ts',
  ],
];

packages();
const [only = ''] = process.argv.slice(2);
const folder = mkdtempSync(join(tmpdir(), 'lantern-mutants-'));
try {
  for (const name of ['src', 'fixtures', 'package.json', 'tsconfig.json', 'vitest.config.ts']) {
    cpSync(join(root, name), join(folder, name), { recursive: true });
  }
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  const chosen = MUTANTS.filter(([file]) => file.includes(only));
  const alive = [];
  for (const [file, from, to, tests] of chosen) {
    const path = join(folder, file);
    const sound = readFileSync(path, 'utf8');
    if (sound.split(from).length !== 2) throw new Error(`${file} does not have "${from}" once`);
    writeFileSync(
      path,
      sound.replace(from, () => to),
    );
    const vitest = [join(root, 'node_modules/vitest/vitest.mjs'), 'run', '--project', 'unit', '--bail', '1', tests];
    const { status } = spawnSync(process.execPath, vitest, { cwd: folder, stdio: 'ignore' });
    writeFileSync(path, sound);
    console.log(`${status === 0 ? 'ALIVE' : 'found'}  ${file}: ${from} → ${to || 'nothing'}`);
    if (status === 0) alive.push(file);
  }
  console.log(`\n${chosen.length - alive.length} of ${chosen.length} faults are found.`);
  process.exitCode = alive.length === 0 ? 0 : 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
