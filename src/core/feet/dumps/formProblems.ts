import type { DumpForm } from '../../addressing';
import { problem, type Problem } from '../../problems';

interface Span {
  readonly path: readonly (string | number)[];
  readonly from: number;
  readonly to: number;
}

const row = (path: Span['path'], { at, size, count }: DumpForm['pages']): Span => ({
  path,
  from: at,
  to: at + size * count,
});

/** What stands in a part of some bytes lies within it, and in no other's place. */
function inside(spans: readonly Span[], size: number, what: string): Problem[] {
  const problems: Problem[] = [];
  const sorted = spans.toSorted((a, b) => a.from - b.from);
  for (const [i, { path, from, to }] of sorted.entries()) {
    const place = { in: 'show', path } as const;
    if (to > size) problems.push(problem('dump.beyond', 'error', place, { what, size, to }));
    const before = sorted[i - 1];
    if (before && from < before.to) {
      problems.push(problem('dump.overlap', 'error', place, { other: before.path.join('.'), at: from }));
    }
  }
  return problems;
}

/** What is wrong with a form in itself: parts that lie beyond what they are part of, or in each other's place. */
export function formProblems(form: DumpForm): readonly Problem[] {
  const { name, switches, switchName, actions, message, pedals, pages } = form;
  const one = (path: Span['path'], at: number): Span => ({ path, from: at, to: at + 1 });
  const named = (path: Span['path'], of: DumpForm['name']): Span[] =>
    of ? [{ path, from: of.at, to: of.at + of.length }] : [];
  const { kind, channel, number, value } = message;
  const smallest = Math.min(...actions.map((a) => a.messages.size));
  return [
    ...inside(
      [...named(['name'], name), row(['switches'], switches), ...(pedals ? [row(['pedals', 'row'], pedals.row)] : [])],
      pages.size,
      'page',
    ),
    ...inside(
      [...named(['switchName'], switchName), ...actions.map((a, i) => row(['actions', i, 'messages'], a.messages))],
      switches.size,
      'switch',
    ),
    ...inside(
      [
        one(['message', 'kind'], kind.at),
        one(['message', 'channel'], channel.at),
        one(['message', 'number'], number.at),
        one(['message', 'value'], value.at),
      ],
      smallest,
      'message',
    ),
    ...(pedals
      ? inside(
          [
            one(['pedals', 'channel'], pedals.channel.at),
            one(['pedals', 'number'], pedals.number),
            one(['pedals', 'from'], pedals.from),
            one(['pedals', 'to'], pedals.to),
          ],
          pedals.row.size,
          'pedal',
        )
      : []),
  ];
}
