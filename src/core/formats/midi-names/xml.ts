import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { NO_LETTER, letterCode } from '../../letters';
import { NOWHERE, problem, type Place, type Problem, type Read } from '../../problems';
import { ATTRIBUTE_KINDS, STRUCTURE, type ChildRule } from './structure';

/** An element as it stands in the document. */
export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  readonly text: string;
  readonly place: Place;
}

const LENGTH_LIMIT = 8_000_000;
const DEPTH_LIMIT = 24;
const PROBLEM_LIMIT = 20;

/**
 * A document's root element, held against the published structure. Documents that are too
 * long, nest too deep or declare entities of their own are refused before they are parsed.
 */
export function readXml(source: string, root: string): Read<Element> {
  const plain = source.replace(/^\ufeff/, '');
  const { text, open } = withoutComments(plain);
  const hostile =
    open === undefined
      ? refuse(text)
      : problem('xml.syntax', 'error', placeAt(plain, open), { detail: 'A comment is not closed.' });
  if (hostile) return { value: undefined, problems: [hostile] };
  const valid = XMLValidator.validate(text);
  if (valid !== true) {
    const { line, col, msg } = valid.err;
    const place: Place = { in: 'text', row: line, column: col ?? 1 };
    return { value: undefined, problems: [problem('xml.syntax', 'error', place, { detail: msg })] };
  }
  let nodes: Node[];
  try {
    nodes = PARSER.parse(text) as Node[];
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return { value: undefined, problems: [problem('xml.syntax', 'error', NOWHERE, { detail })] };
  }
  const lines = lineStarts(text);
  const [element, second] = elementsOf(nodes, lines);
  if (element?.name !== root || second) {
    const place = (second ?? element)?.place ?? NOWHERE;
    const found = second ? `${second.name} after it` : (element?.name ?? 'no element');
    return { value: undefined, problems: [problem('xml.root', 'error', place, { expected: root, found })] };
  }
  const problems: Problem[] = [];
  check(element, problems);
  return problems.length > 0 ? { value: undefined, problems } : { value: element, problems };
}

/** A document with its comments blanked out, so that every line stays where it is; and where one is open at the end. */
function withoutComments(source: string): { readonly text: string; readonly open?: number } {
  const parts: string[] = [];
  let at = 0;
  for (let start = source.indexOf('<!--'); start >= 0; start = source.indexOf('<!--', at)) {
    const end = source.indexOf('-->', start + 4);
    if (end < 0) return { text: '', open: start };
    parts.push(source.slice(at, start), source.slice(start, end + 3).replace(/[^\n]/g, ' '));
    at = end + 3;
  }
  return { text: parts.join('') + source.slice(at) };
}

/** What makes a document not worth parsing. */
function refuse(text: string): Problem | undefined {
  if (text.length > LENGTH_LIMIT) {
    return problem('xml.too-long', 'error', NOWHERE, { bytes: text.length, limit: LENGTH_LIMIT });
  }
  // XML 1.0, 2.8: one at the most. Each would be looked through to its end.
  const [, second] = text.matchAll(/<!DOCTYPE/gi);
  if (second) return problem('xml.syntax', 'error', placeAt(text, second.index), { detail: 'A second DOCTYPE.' });
  const head = /<!DOCTYPE[^>[]{0,2000}\[|<!ENTITY|<!ELEMENT|<!ATTLIST/i.exec(text);
  if (head) return problem('xml.declarations', 'error', placeAt(text, head.index), {});
  const unknown = /&(?!(?:amp|lt|gt|quot|apos|#\d{1,7}|#x[0-9a-f]{1,6});)/i.exec(text);
  if (unknown) {
    const detail = `"${text.slice(unknown.index, unknown.index + 12)}" is no entity of XML.`;
    return problem('xml.syntax', 'error', placeAt(text, unknown.index), { detail });
  }
  const letter = NO_LETTER.exec(text);
  if (letter) {
    const detail = `XML has no letter ${letterCode(letter[0])}.`;
    return problem('xml.syntax', 'error', placeAt(text, letter.index), { detail });
  }
  for (const match of text.matchAll(/&#(x?)([0-9a-f]{1,7});/gi)) {
    const code = Number.parseInt(match[2]!, match[1] === '' ? 10 : 16);
    if (code <= 0x10ffff && !NO_LETTER.test(String.fromCodePoint(code))) continue;
    return problem('xml.syntax', 'error', placeAt(text, match.index), { detail: `"${match[0]}" is no letter of XML.` });
  }
  let depth = 0;
  /** Where the tag ends that was looked at last: each part of the text is looked through once. */
  let end = -1;
  for (const match of text.matchAll(/<(\/?)([A-Za-z_][^\s/>]*)/g)) {
    if (match[1] === '/') {
      depth -= 1;
      continue;
    }
    if (end < match.index) end = text.indexOf('>', match.index);
    // A tag that is never closed is no XML; that is told by the parser.
    if (end < 0) break;
    if (text[end - 1] === '/') continue;
    depth += 1;
    if (depth > DEPTH_LIMIT) {
      return problem('xml.too-deep', 'error', placeAt(text, match.index), { limit: DEPTH_LIMIT });
    }
  }
  return undefined;
}

const PARSER = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: true,
  processEntities: true,
  // Numeric references; named ones beyond XML's five are refused before.
  htmlEntities: true,
  captureMetaData: true,
});

const META = XMLParser.getMetaDataSymbol() as unknown as symbol;

/** What the parser gives: a name with its children, the attributes beside them, where it stands under a symbol. */
type Node = Readonly<Record<string, unknown>>;

function elementsOf(nodes: readonly Node[], lines: readonly number[]): Element[] {
  return nodes.flatMap((node) => {
    const name = Object.keys(node).find((k) => k !== ':@');
    if (name === undefined || name.startsWith('#') || name.startsWith('?')) return [];
    const inner = node[name] as readonly Node[];
    const start = (node as Record<symbol, { startIndex?: number } | undefined>)[META]?.startIndex;
    return [
      {
        name,
        attributes: (node[':@'] as Record<string, string> | undefined) ?? {},
        children: elementsOf(inner, lines),
        text: inner
          .map((n) => n['#text'])
          .filter((t) => typeof t === 'string')
          .join('')
          .trim(),
        place: start === undefined ? NOWHERE : placeOf(lines, start),
      },
    ];
  });
}

function lineStarts(text: string): number[] {
  const starts = [0];
  for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) starts.push(i + 1);
  return starts;
}

function placeOf(lines: readonly number[], index: number): Place {
  let low = 0;
  let high = lines.length;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (lines[middle]! <= index) low = middle;
    else high = middle;
  }
  return { in: 'text', row: low + 1, column: index - lines[low]! + 1 };
}

const placeAt = (text: string, index: number): Place => placeOf(lineStarts(text), index);

/** Holds an element, and all in it, against the structure. */
function check(element: Element, problems: Problem[]): void {
  const { name, attributes, children, text, place } = element;
  const rule = STRUCTURE[name]!;
  const say = (p: Problem): void => {
    if (problems.length < PROBLEM_LIMIT) problems.push(p);
  };
  for (const [attribute, value] of Object.entries(attributes)) {
    const own = Object.hasOwn(rule.attributes, attribute) ? rule.attributes[attribute] : undefined;
    // Namespaces and the like are XML's own business, not the structure's.
    if (attribute.startsWith('xml')) continue;
    if (!own) say(problem('xml.attribute', 'error', place, { element: name, attribute }));
    else if (!ATTRIBUTE_KINDS[own.kind].fits(value)) {
      const data = { element: name, attribute, found: value.slice(0, 60), expected: ATTRIBUTE_KINDS[own.kind].words };
      say(problem('xml.value', 'error', place, data));
    }
  }
  for (const [attribute, { needed }] of Object.entries(rule.attributes)) {
    if (needed && !Object.hasOwn(attributes, attribute)) {
      say(problem('xml.attribute-missing', 'error', place, { element: name, attribute }));
    }
  }
  if (!rule.text && text !== '') say(problem('xml.text', 'error', place, { element: name, found: text.slice(0, 60) }));
  const wrong = firstMisplaced(element, rule.children);
  if (wrong) say(wrong);
  else for (const child of children) check(child, problems);
}

/** The first child that the structure does not have at its place, or what is missing at the end. */
function firstMisplaced({ name, children, place }: Element, rules: readonly ChildRule[]): Problem | undefined {
  let rule = 0;
  let count = 0;
  const satisfied = (): boolean => {
    const often = rules[rule]!.often;
    return count > 0 || often === 'maybe' || often === 'many';
  };
  const expected = (): string[] => {
    const names: string[] = [];
    for (let i = rule; i < rules.length; i++) {
      const { often } = rules[i]!;
      const full = i === rule && count > 0 && (often === 'one' || often === 'maybe');
      if (!full) names.push(...rules[i]!.names);
      const open = i === rule ? satisfied() : often === 'maybe' || often === 'many';
      if (!open) break;
    }
    return names;
  };
  for (const child of children) {
    for (;;) {
      const here = rules[rule];
      const room = here && (count === 0 || here.often === 'many' || here.often === 'some');
      if (room && here.names.includes(child.name)) {
        count += 1;
        break;
      }
      if (!here || !satisfied()) {
        const data = { element: child.name, parent: name, expected: here ? expected() : [] };
        return problem('xml.element', 'error', child.place, data);
      }
      rule += 1;
      count = 0;
    }
  }
  while (rule < rules.length && satisfied()) {
    rule += 1;
    count = 0;
  }
  return rule < rules.length
    ? problem('xml.missing', 'error', place, { element: name, expected: expected() })
    : undefined;
}
