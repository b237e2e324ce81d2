import { indexShow, setOf } from '../../show';
import { formatPosition } from '../../time';
import { matchOther, noMatches, writtenOf, type OtherUnit } from '../../tonight';
import { finding, type Finding } from '../finding';
import type { SongFacts } from './facts';
import { inSong, type SongCheck } from './songCheck';

/** What the tone of a cue wants of a unit that another one stands for tonight, and that this one has not got; by cue and unit. */
function lacking({ show, passed }: SongFacts): readonly Lack[] {
  const others = setOf(show).tonight.filter((t): t is OtherUnit => t.how === 'other');
  if (others.length === 0) return [];
  const written = writtenOf(show);
  const { units, tones } = indexShow(written);
  return others.flatMap((other): Lack[] => {
    const unit = units.get(other.unitId);
    if (!unit) return [];
    const match = matchOther(written, unit, other);
    return passed.flatMap(({ moment }): Lack[] => {
      const { action, id, at } = moment;
      const tone = action.kind === 'tone' ? tones.get(action.toneId) : undefined;
      const part = tone?.parts.find((p) => p.unitId === unit.id);
      if (!tone || !part) return [];
      const missing = noMatches(unit, part, other, match);
      if (missing.length === 0) return [];
      const words = missing.map(({ what, name }) => ({ what, name }));
      return [{ cueId: id, unitId: unit.id, at, source: moment.source, unit: other.name, tone: tone.name, words }];
    });
  });
}

interface Lack {
  readonly cueId: string;
  readonly unitId: string;
  readonly at: number;
  readonly source: string;
  readonly unit: string;
  readonly tone: string;
  readonly words: readonly { readonly what: 'slot' | 'variant' | 'control' | 'effect'; readonly name: string }[];
}

/** Cues and units of which that is said: that they never get there needs no second word. */
export const lacks = (facts: SongFacts): ReadonlySet<string> =>
  new Set(lacking(facts).map((l) => `${l.cueId}\n${l.unitId}`));

/** Cues whose tone wants something of a unit that the one in its place tonight has not got. */
export const noMatch: SongCheck = (facts) =>
  lacking(facts).map((lack): Finding => {
    const { song, time } = facts;
    const place = inSong(facts, lack.at, lack.source === 'cue' ? { cueId: lack.cueId } : {});
    return finding('song.no-match', 'error', place, {
      song: song.title,
      at: formatPosition(time.bars, lack.at, song.bars),
      unit: lack.unit,
      tone: lack.tone,
      missing: lack.words,
    });
  });
