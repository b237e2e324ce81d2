import { addTo } from '../src/core/groups';
import { basename, extname } from 'node:path';
import { nanoid } from 'nanoid';
import { labelOf } from '../src/core/addressing';
import type { RigState } from '../src/core/rig';
import { compileSong, problemsOf, stateAt } from '../src/core/compile';
import { acceptedReason, checkRig, checkSong, type Finding } from '../src/core/checks';
import { demoShow, faultyDemo } from '../src/core/demo';
import {
  matchVoices,
  smfToShow,
  songIntoShow,
  songsToSmf,
  voicesOf,
  withoutChannels,
  writeSmf,
  type SmfMode,
} from '../src/core/formats/smf';
import { writeShowFile } from '../src/core/formats/show-file';
import { hasErrors, type Problem } from '../src/core/problems';
import { OPENING_CUE, rigSpec, songWants } from '../src/core/meaning';
import {
  applyEdit,
  indexShow,
  openingOf,
  setOf,
  type Show,
  slotsById,
  type Song,
  songTime,
  songsOfSet,
} from '../src/core/show';
import { lanternOf, proofRun, sumLanterns, type Lantern, type Verdict } from '../src/core/simulate';
import { formatPosition, parsePosition } from '../src/core/time';
import { differsTonight, tonightOf, type ShowTonight } from '../src/core/tonight';
import {
  cueWords,
  findingSentence,
  fixWords,
  importedWords,
  placeSentence,
  problemLine,
  sentence,
  stateWords,
  sweepWords,
  verdictSentence,
} from '../src/wording';
import { Failure } from './failure';
import { findSong, readBytes, readShow, reportLines, valueOf, writeWhole } from './files';

/** What a command prints and exits with. */
export interface Outcome {
  readonly lines: readonly string[];
  readonly code: 0 | 1;
}

export function demo(out: string, faults: boolean): Outcome {
  const show = faults ? faultyDemo() : demoShow();
  writeWhole(out, writeShowFile(show));
  return { lines: [`${out}: "${show.title}", ${show.units.length} units, ${show.songs.length} songs`], code: 0 };
}

export function importFile(file: string, into: string | undefined, out: string, leftOut: readonly string[]): Outcome {
  const title = basename(file, extname(file)) || 'Imported';
  const read = smfToShow(readBytes(file), title);
  const odd = leftOut.find((c) => !/^([1-9]|1[0-6])$/.test(c));
  if (odd !== undefined) throw new Failure(`--without wants a channel from 1 to 16; "${odd}" is none.`);
  const show = withoutChannels(valueOf(file, read), new Set(leftOut.map(Number)));
  if (into !== undefined) return importInto(into, show, read.problems, out);
  writeWhole(out, writeShowFile(show));
  const cues = show.songs.reduce((sum, s) => sum + s.cues.length, 0);
  return {
    lines: [
      `${out}: ${show.songs.length} song(s), ${show.units.length} unit(s), ${cues} message(s)`,
      ...reportLines(read.problems),
    ],
    code: 0,
  };
}

/** Everything that the checks have to say, with a dry run of every song. */
export function check(path: string, asJson: boolean): Outcome {
  const show = tonightOf(readShow(path));
  const spec = rigSpec(show);
  const findings = [
    ...checkRig(show),
    ...show.songs.flatMap((song) => {
      const compiled = compileSong(show, song);
      return checkSong(show, song, {
        compiled,
        dry: proofRun(spec, compiled.events, songWants(show, song), show.tolerance),
      });
    }),
  ];
  const code = findings.some((f) => f.severity === 'error') ? 1 : 0;
  if (asJson) {
    const report = findings.map((f) => ({
      code: f.code,
      severity: f.severity,
      place: f.place,
      sentence: findingSentence(f),
      fix: f.fix ? fixWords(f) : null,
      accepted: acceptedReason(show, f) ?? null,
    }));
    return {
      lines: [JSON.stringify({ show: show.title, tonight: differsTonight(show), findings: report }, null, 2)],
      code,
    };
  }
  const line = (f: Finding): string => {
    const reason = acceptedReason(show, f);
    return `${f.severity}: ${findingSentence(f)}${f.fix ? ` [${fixWords(f)}]` : ''}${reason ? ` (let be: ${reason})` : ''}`;
  };
  const lines = findings.length === 0 ? [`${show.title}: nothing found`] : findings.map(line);
  return { lines: [...differsTonight(show), ...lines], code };
}

/** Songs of a file into a show, named through its map. */
function importInto(into: string, plain: Show, problems: readonly Problem[], out: string): Outcome {
  let show = readShow(into);
  const lines: string[] = [];
  const voices = voicesOf(plain);
  for (const song of plain.songs) {
    const found = songIntoShow(show, plain, song, matchVoices(show, voices), true, () => nanoid(10));
    show = applyEdit(show, found.edit);
    lines.push(`${out}: "${found.song.title}". ${importedWords(found.report)}`, ...reportLines(found.problems));
  }
  writeWhole(out, writeShowFile(show));
  return { lines: [...lines, ...reportLines(problems)], code: 0 };
}

/** A song, or without one the set, as a Standard MIDI File of format 1 or 0. */
export function exportSmf(path: string, title: string | undefined, out: string, mode: SmfMode, format: 0 | 1): Outcome {
  const show = tonightOf(readShow(path));
  const songs = title === undefined ? songsOfSet(show) : [findSong(show, title)];
  if (songs.length === 0) throw new Failure('The set has no song; name one of the show with --song.');
  const name = title === undefined ? setOf(show).title : songs[0]!.title;
  const { file, problems } = songsToSmf(show, songs, { mode, format, unitIds: null }, name);
  const tooLong = problems.find((p) => p.code === 'smf.too-wide');
  if (tooLong) throw new Failure(problemLine(tooLong));
  writeWhole(out, writeSmf(file));
  const events = file.tracks.reduce((sum, t) => sum + t.events.filter(isMessage).length, 0);
  const tracks = file.tracks.length === 1 ? '1 track' : `${file.tracks.length} tracks`;
  return {
    lines: [`${out}: "${name}" ${mode}, ${tracks}, ${events} messages`, ...reportLines(problems)],
    code: hasErrors(problems) ? 1 : 0,
  };
}

const isMessage = (e: { readonly kind: string }): boolean => e.kind === 'message' || e.kind === 'packet';

interface CueReport {
  readonly cue: string;
  readonly at: string;
  readonly what: string;
  readonly lantern: Lantern;
  readonly units: readonly {
    readonly unit: string;
    readonly outcome: Verdict['outcome'];
    readonly offsetMs: number | null;
    readonly why: string;
    /** What it bears before it misses, in milliseconds; null for any length of time, and for what misses. */
    readonly margin: {
      readonly slowerMs: number | null;
      readonly laterMs: number | null;
      readonly soonerMs: number | null;
    } | null;
  }[];
}

interface SongReport {
  readonly song: string;
  readonly lantern: Lantern;
  readonly cues: readonly CueReport[];
  readonly problems: readonly { readonly code: string; readonly severity: string; readonly sentence: string }[];
}

export function runSong(show: ShowTonight, song: Song): SongReport {
  const { units, tones } = indexShow(show);
  const compiled = compileSong(show, song);
  const { verdicts } = proofRun(rigSpec(show), compiled.events, songWants(show, song), show.tolerance);
  const byCue = new Map<string, Verdict[]>();
  for (const verdict of verdicts) addTo(byCue, verdict.cueId, verdict);
  const { bars } = songTime(song);
  const report = (id: string, at: string, what: string): CueReport => {
    const found = byCue.get(id) ?? [];
    return {
      cue: id,
      at,
      what,
      lantern: lanternOf(found),
      units: found.map((v) => ({
        unit: units.get(v.unitId)!.name,
        outcome: v.outcome,
        offsetMs: v.offset === null ? null : Math.round(v.offset) / 1000,
        why: verdictSentence(v, units.get(v.unitId)!),
        margin: v.margin && {
          slowerMs: millisOf(v.margin.slower),
          laterMs: millisOf(v.margin.later),
          soonerMs: millisOf(v.margin.sooner),
        },
      })),
    };
  };
  const cues: CueReport[] = [];
  const opening = tones.get(openingOf(show, song) ?? '');
  if (opening) {
    cues.push(report(OPENING_CUE, 'opening', opening.name));
  }
  for (const cue of song.cues) {
    if (cue.muted) continue;
    cues.push(report(cue.id, formatPosition(bars, cue.at, song.bars), cueWords(show, cue.action)));
  }
  for (const sweep of song.sweeps) {
    if (sweep.muted) continue;
    cues.push(report(sweep.id, formatPosition(bars, sweep.from, song.bars), sweepWords(show, sweep)));
  }
  for (const taps of song.taps) {
    cues.push(report(taps.id, 'tempo', `taps for ${units.get(taps.unitId)!.name}`));
  }
  return {
    song: song.title,
    // A song without cues leaves nothing to prove.
    lantern: cues.length === 0 ? 'lit' : sumLanterns(cues.map((c) => c.lantern)),
    cues,
    problems: problemsOf(show, compiled).map((p) => ({ code: p.code, severity: p.severity, sentence: sentence(p) })),
  };
}

const millisOf = (micros: number): number | null => (Number.isFinite(micros) ? Math.round(micros) / 1000 : null);

const MARKS: Readonly<Record<Lantern, string>> = { hollow: '( )', lit: '(*)', cracked: '(x)' };

export function dryRunShow(path: string, title: string | undefined, json: boolean): Outcome {
  const show = tonightOf(readShow(path));
  const songs = title === undefined ? show.songs : [findSong(show, title)];
  const reports = songs.map((song) => runSong(show, song));
  const proven = reports.every((r) => r.lantern === 'lit' && r.problems.every((p) => p.severity !== 'error'));
  const code = proven ? 0 : 1;
  if (json)
    return {
      lines: [JSON.stringify({ show: show.title, tonight: differsTonight(show), proven, songs: reports }, null, 1)],
      code,
    };
  const lines = reports.flatMap((r) => [
    `${MARKS[r.lantern]} ${r.song}`,
    ...r.problems.map((p) => `    ${p.severity}: ${p.sentence}`),
    ...r.cues.flatMap((c) => [
      `  ${MARKS[c.lantern]} ${c.at.padEnd(10)} ${c.what}`,
      ...c.units.filter((u) => u.outcome !== 'on-time').map((u) => `        ${u.why}`),
    ]),
  ]);
  return { lines: [...differsTonight(show), ...lines], code };
}

export function state(path: string, title: string, at: string, json: boolean): Outcome {
  const show = tonightOf(readShow(path));
  const song = findSong(show, title);
  const { bars } = songTime(song);
  const place = parsePosition(bars, at, song.bars);
  if (!place.ok) throw new Failure(placeSentence(place.problem));
  const rig = stateAt(show, song, place.ticks);
  const units = show.units.map((unit) => unitReport(show, unit.id, rig));
  const position = formatPosition(bars, place.ticks, song.bars);
  if (json) {
    return { lines: [JSON.stringify({ show: show.title, song: song.title, at: position, units }, null, 1)], code: 0 };
  }
  const lines = units.map((u) => `${u.unit.padEnd(24)} ${u.words}`);
  return { lines: [...differsTonight(show), `${song.title}, ${position}`, ...lines], code: 0 };
}

function unitReport(show: Show, unitId: string, rig: RigState) {
  const unit = indexShow(show).units.get(unitId)!;
  const { profile } = unit;
  const is = rig[unitId];
  const slot = is?.slot ?? null;
  const name = slot === null ? null : ([...slotsById(unit).values()].find((s) => s.index === slot)?.name ?? '');
  const controls = Object.entries(is?.controls ?? {}).map(([id, value]) => ({
    control: profile.controls.find((c) => c.id === id)?.name ?? id,
    value,
  }));
  const set = controls.filter((c) => c.value !== 'stored').map((c) => `${c.control} ${c.value}`);
  const words = is ? `${stateWords(profile, is)}${name ? ` "${name}"` : ''}` : 'not known';
  return {
    unit: unit.name,
    slot: slot === null ? null : { index: slot, label: labelOf(profile.plan, slot), name },
    bank: is?.bank ?? null,
    variant: is?.variant ?? null,
    controls,
    words: [words, ...set].join(', '),
  };
}
