import type { CompiledSong } from '../core/compile';
import { DIN_BYTE_MICROS } from '../core/midi';
import type { Show } from '../core/show';
import type { DryRun } from '../core/simulate';
import type { SongPicture } from './protocol';

export const NO_PICTURE: SongPicture = { load: [], units: [], landings: [], end: 0 };

type Span = SongPicture['units'][number]['spans'][number];

/** What a dry run looks like: how busy cables are, what units are on and when they load, how changes land. */
export function pictureOf(show: Show, compiled: CompiledSong, { verdicts, trace }: DryRun): SongPicture {
  const { end } = compiled;
  return {
    load: show.ports
      .filter((p) => p.cable === 'din' && p.active)
      .map(({ id }) => ({ portId: id, seconds: loadOf(id, compiled) }))
      .filter((l) => l.seconds.some((s) => s > 0)),
    units: show.units
      .map(({ id }) => ({ unitId: id, spans: spansOf(id, trace, end) }))
      .filter((u) => u.spans.length > 0),
    landings: verdicts
      .filter((v) => v.reason.kind !== 'already')
      .map(({ due, cueId, unitId, offset, outcome }) => ({
        at: due,
        cueId,
        unitId,
        millis: (offset ?? 0) / 1000,
        outcome,
      })),
    end,
  };
}

/** The share of each second of the song that a 5-pin cable is busy; what leaves before the song counts to its first. */
function loadOf(portId: string, { events, end }: CompiledSong): number[] {
  const seconds = Array.from({ length: Math.max(1, Math.ceil(end / 1e6)) }, () => 0);
  for (const event of events) {
    if (event.portId !== portId) continue;
    const i = Math.min(seconds.length - 1, Math.max(0, Math.floor(event.at / 1e6)));
    seconds[i] = seconds[i]! + (event.bytes.length * DIN_BYTE_MICROS) / 1e6;
  }
  return seconds;
}

function spansOf(unitId: string, trace: DryRun['trace'], end: number): Span[] {
  const spans: Span[] = [];
  let slot: Span['slot'] = null;
  let variant: Span['variant'] = null;
  let from = 0;
  const close = (at: number, gap: boolean): void => {
    const [a, b] = [Math.max(0, from), Math.max(0, at)];
    const known = slot !== null || variant !== null || gap;
    if (b > a && known) spans.push({ from: a, to: b, slot, variant, gap });
    from = at;
  };
  let loadingUntil = Number.NEGATIVE_INFINITY;
  for (const entry of trace) {
    if (entry.kind === 'loading' && entry.unitId === unitId) {
      close(entry.at, entry.at < loadingUntil);
      loadingUntil = entry.until;
    } else if (entry.kind === 'changed' && entry.unitId === unitId) {
      if (entry.at <= loadingUntil && entry.at > from) {
        close(entry.at, true);
        loadingUntil = Number.NEGATIVE_INFINITY;
      } else if (entry.state.slot !== slot || entry.state.variant !== variant) close(entry.at, false);
      ({ slot, variant } = entry.state);
    }
  }
  close(end, false);
  return spans;
}
