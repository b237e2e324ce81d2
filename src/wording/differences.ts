import type { ProfileDifference } from '../core/addressing';
import { toHex, type Bytes } from '../core/midi';
import { claimWords, encodingKindWords } from './encodings';

const hex = (messages: readonly Bytes[]): string => messages.map((m) => toHex(m, ' ').toUpperCase()).join(' · ');

const TIMES = {
  recall: 'A preset takes',
  settle: 'After a recall it listens again in',
  variant: 'A variant takes',
  control: 'A control takes',
  thru: 'Its thru adds',
} as const;

/** What a difference between two profiles means, in a sentence. */
export function differenceSentence(d: ProfileDifference): string {
  switch (d.what) {
    case 'slots':
      return `There are ${d.after} slots instead of ${d.before}.`;
    case 'label':
      return `Slots are written otherwise: ${d.before} becomes ${d.after}.`;
    case 'slot-messages':
      return `Slots are called otherwise: ${d.label} was ${hex(d.before) || 'nothing'}, now ${hex(d.after) || 'nothing'}.`;
    case 'engage':
      return d.now === 'by-recall'
        ? `A recall also engages: ${d.control} need not be sent any more.`
        : `A recall no longer engages: ${d.control} has to be sent after it.`;
    case 'time':
      return `${TIMES[d.time]} ${d.after} ms instead of ${d.before} ms.`;
    case 'settling':
      return d.after === 'queue'
        ? 'Messages that arrive while it settles are kept and obeyed afterwards.'
        : 'Messages that arrive while it settles are lost.';
    case 'recall-loads':
      return `A preset ${d.after ? 'now brings its own' : 'no longer brings its own'} ${d.part === 'variant' ? 'variant' : 'control values'}.`;
    case 'silence':
      return 'What makes it fall silent is another message.';
    case 'gap':
      return d.silent ? 'It falls silent while a preset loads.' : 'It keeps sounding while a preset loads.';
    case 'variants':
      return `There are ${d.after} of "${d.word}" instead of ${d.before}.`;
    case 'variant-messages':
      return `${d.word} is called by ${claimWords(d.after)} (${encodingKindWords(d.after.kind)}), before by ${claimWords(d.before)} (${encodingKindWords(d.before.kind)}).`;
    case 'control-gone':
      return `${d.name} is gone.`;
    case 'control-new':
      return `${d.name} is new.`;
    case 'control-renamed':
      return `${d.before} is called ${d.after}.`;
    case 'control-messages':
      return `${d.name} is on ${claimWords(d.after)} (${encodingKindWords(d.after.kind)}), before on ${claimWords(d.before)} (${encodingKindWords(d.before.kind)}).`;
  }
}
