import { ask, type Answer } from '../../../core/ask';
import { indexShow, songsOfSet, type Show } from '../../../core/show';
import { worstFirst, type Verdict } from '../../../core/simulate';
import { answerWords } from '../../../wording';
import { placePath } from '../../features/findingGroups';
import { offsetText, roomText, sumOf } from '../../features/runSum';
import { sendTone } from '../../features/sendTone';
import { audition, playSong, sendOn } from '../../state/desk';
import { proofOf } from '../../state/marks';
import type { Proofs } from '../../state/proofs';

/** One answer of the question box. */
export interface AnswerLine {
  readonly id: string;
  readonly head: string;
  readonly says: string;
  /** Address of where it leads, below that of the show. */
  readonly path: string;
  /** What the second key does with it; null where there is nothing to do. */
  readonly act: { readonly name: string; readonly run: () => void } | null;
}

/** Questions for what a dry run reckons, by words that one would use for it. */
const ABOUT_ROOM = /^(least\s+)?(margin|room)s?$/i;
const ABOUT_LATE = /^(late|fails?|cracked|misses)$/i;

/** What is typed, answered: from the show, and from what is proven of it. */
export function answerLines(
  show: Show,
  typed: string,
  asked: { readonly songId: string | null; readonly proofs: Proofs },
): readonly AnswerLine[] {
  const text = typed.trim();
  return [
    ...(ABOUT_ROOM.test(text) || ABOUT_LATE.test(text) ? worstLines(show, asked.proofs, ABOUT_LATE.test(text)) : []),
    ...ask(show, text, asked).map((answer, i): AnswerLine => {
      const { head, says } = answerWords(show, answer);
      const bears = bearsWords(answer, asked.proofs);
      return {
        id: `answer ${i}`,
        head,
        says: bears === '' ? says : `${says} · ${bears}`,
        path: pathOf(show, answer),
        act: actOf(show, answer),
      };
    }),
  ];
}

/** What a change bears that is asked about; empty where it is not proven. */
function bearsWords(answer: Answer, proofs: Proofs): string {
  if (answer.kind !== 'unit-there' || answer.cueId === null) return '';
  const found = proofOf(proofs, answer.songId, answer.cueId)?.verdicts.find((v) => v.unitId === answer.unitId);
  if (!found) return '';
  return found.outcome === 'on-time' ? `${offsetText(found)}, room ${roomText(found)}` : offsetText(found);
}

/** The change of each song of the set with the least room, or only what misses; the worst first. */
function worstLines(show: Show, proofs: Proofs, missed: boolean): readonly AnswerLine[] {
  const { units } = indexShow(show);
  const worst = [...new Set(songsOfSet(show))].flatMap((song) => {
    const run = proofs.runs[song.id];
    const verdict: Verdict | undefined = run && sumOf(run).worst;
    return verdict && (!missed || verdict.outcome !== 'on-time') ? [{ song, verdict }] : [];
  });
  const order = worstFirst(worst.map((w) => w.verdict));
  const lines = order.map((verdict, i): AnswerLine => {
    const { song } = worst.find((w) => w.verdict === verdict)!;
    const lands = verdict.outcome === 'on-time';
    return {
      id: `worst ${i}`,
      head: lands ? `Least room: ${roomText(verdict)}` : `Does not land: ${offsetText(verdict)}`,
      says: `${units.get(verdict.unitId)?.name ?? ''} in ${song.title}`,
      path: `dry-run/${song.id}`,
      act: null,
    };
  });
  if (lines.length > 0) return lines.slice(0, 6);
  return [{ id: 'none', head: 'Nothing is late', says: 'in the songs that are proven', path: 'dry-run', act: null }];
}

/** Where an answer leads. */
function pathOf(show: Show, answer: Answer): string {
  const below = (path: string): string => path.slice(`/show/${show.id}/`.length);
  switch (answer.kind) {
    case 'place':
    case 'unit-there':
    case 'sent':
      return below(placePath(show, { in: 'song', songId: answer.songId, at: answer.at }));
    case 'no-place':
    case 'song':
      return `chart/${answer.songId}`;
    case 'slot':
      return `map/${answer.unitId}`;
    case 'control':
      return `map/${answer.unitId}/controls`;
    case 'message':
      return 'rig/monitor';
    case 'tone':
      return `tones/${answer.toneId}`;
    case 'unit':
      return `map/${answer.unitId}`;
    case 'port':
      return below(placePath(show, { in: 'port', portId: answer.portId }));
    case 'player':
      return 'rig/players';
    case 'switch':
      return below(
        placePath(show, {
          in: 'feet',
          unitId: answer.unitId,
          pageId: answer.does[0]?.pageId ?? null,
          senderId: answer.senderId,
        }),
      );
  }
}

/** What the second key does with an answer. */
function actOf(show: Show, answer: Answer): AnswerLine['act'] {
  switch (answer.kind) {
    case 'place':
    case 'unit-there':
    case 'sent':
      return { name: 'play from there', run: () => void playSong(answer.songId, answer.at, null) };
    case 'song':
      return { name: 'play it', run: () => void playSong(answer.songId, 0, null) };
    case 'slot':
      return { name: 'send it', run: () => void audition(answer.unitId, { slot: answer.index, controls: {} }) };
    case 'tone': {
      const tone = indexShow(show).tones.get(answer.toneId);
      return tone ? { name: 'send it', run: () => void sendTone(show, tone) } : null;
    }
    case 'message':
      return { name: 'send it', run: () => void sendOn(answer.portId, answer.bytes) };
    default:
      return null;
  }
}
