import type { Place, Problem, ProblemCode, ProblemData } from '../core/problems';

const n = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;
const hex = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');

type Sentences = { readonly [C in ProblemCode]: (data: ProblemData[C]) => string };

const SENTENCES: Sentences = {
  'json.too-deep': (d) => `The file nests deeper than ${d.limit} levels; a show never does.`,
  'json.syntax': (d) => `The file is not valid JSON: reading stopped at ${d.detail}.`,
  'bundle.not-zip': () => 'The file is not a zip file.',
  'bundle.damaged': (d) =>
    d.name === '' ? 'The zip file is damaged or cut off.' : `"${d.name}" in the zip file is damaged.`,
  'bundle.too-many': (d) => `The zip file holds ${d.count} files; a show has up to ${d.limit}.`,
  'bundle.path': (d) => `The zip file holds "${d.name}", a path that leads out of it.`,
  'bundle.twice': (d) => `The zip file holds "${d.name}" twice.`,
  'bundle.no-show': (d) => `The zip file holds no show: "${d.name}" is missing.`,
  'bundle.too-large': (d) =>
    `"${d.name}" would be ${Math.round(d.size / 1e6)} MB unpacked; up to ${Math.round(d.limit / 1e6)} MB are read.`,
  'bundle.extra': (d) => `"${d.name}" does not belong to a show and was passed over.`,
  'bundle.sound-size': (d) =>
    `"${d.name}" has ${n(d.found, 'byte')} where the show says ${d.expected}, and was left out; its place in the songs is kept.`,
  'bundle.sound-missing': (d) => `"${d.name}" is not in the file; its place in the songs is kept.`,
  'show.not-a-show': (d) =>
    `This is not a show of Hollow Lantern: expected the format "hollow-lantern-show", found ${d.found}.`,
  'show.newer': (d) =>
    `The show was saved by a newer Hollow Lantern (show version ${d.version}; this one knows up to ${d.known}). Open it with that one.`,
  'show.version': (d) => `The show's version should be a whole number from 1 on; found ${d.found}.`,
  'show.shape': (d) => `Expected ${d.expected}, found ${d.found}.`,
  'show.twice': (d) => `There are two of this ${d.what}: the id "${d.id}" is used twice.`,
  'show.missing': (d) => `It refers to the ${d.what} "${d.id}", which is not in the show.`,
  'plan.group-too-long': (d) =>
    `Group ${d.group + 1} of ${d.unit}'s plan has ${n(d.count, 'slot')}, but its digits can only tell ${d.room} apart.`,
  'plan.letters-run-out': (d) =>
    `Group ${d.group + 1} of ${d.unit}'s plan wants ${d.count} letters from ${d.from} on; the alphabet ends before.`,
  'plan.same-label': (d) =>
    `Two slots of ${d.unit} would be written "${d.label}": indexes ${d.first} and ${d.second}, counted from 0.`,
  'plan.table-index': (d) =>
    `Row ${d.row + 1} of ${d.unit}'s program table calls slot ${d.index} (counted from 0), but there are ${d.slots}.`,
  'plan.table-twice': (d) =>
    `Row ${d.row + 1} of ${d.unit}'s program table gives bank ${d.bank}, program ${d.program} a second slot.`,
  'plan.bank-out-of-reach': (d) => `${d.unit} has ${n(d.slots, 'slot')}, but its bank messages reach only ${d.reach}.`,
  'encoding.past-127': (d) => `A value of ${d.control} of ${d.unit} would be ${d.last}; values end at 127.`,
  'encoding.on-is-off': (d) =>
    `${d.control} of ${d.unit} reads its on value (${d.on}) and its off value (${d.off}) alike.`,
  'encoding.flat-range': (d) => `The range of ${d.control} of ${d.unit} has no length (${d.low} to ${d.high}).`,
  'encoding.log-through-zero': (d) =>
    `${d.control} of ${d.unit} cannot be logarithmic from ${d.low} to ${d.high}: both have to be above, or both below, 0.`,
  'encoding.same-value': (d) => `Two options of ${d.control} of ${d.unit} have the same value, ${d.value}.`,
  'encoding.template': (d) =>
    `"${d.template}" is not a message for ${d.control} of ${d.unit}: it has to run from F0 to F7 in pairs of hexadecimal digits below 80, with vv, hh, ll for the value, and ss exactly where a checksum is chosen.`,
  'encoding.template-value': (d) =>
    `${d.control} of ${d.unit} cannot send values up to ${d.high}: its message has room up to ${d.most}.`,
  'encoding.checksum-range': (d) =>
    `The checksum of ${d.control} of ${d.unit} runs over bytes ${d.from} to ${d.to}; the message has ${d.length}, counted from 0.`,
  'encoding.table-points': (d) =>
    `The figures of ${d.control} of ${d.unit} have to rise or fall all the way from ${d.low} to ${d.high}, those two included.`,
  'exclusive.left-out': (d) =>
    d.kind === 'filling'
      ? `${n(d.count, 'zero or line end', 'zeros and line ends')} between the messages ${d.count === 1 ? 'was' : 'were'} left out.`
      : `${n(d.count, 'real-time byte')} within the file ${d.count === 1 ? 'was' : 'were'} left out.`,
  'exclusive.not-one': (d) => `This is not a system exclusive file: expected ${d.expected}, found ${d.found}.`,
  'feet.memory': (d) => `This is not what a foot controller keeps: expected ${d.expected}.`,
  'dump.not-one': (d) => `This is no dump of that form: expected ${d.expected}, found ${d.found}.`,
  'dump.beyond': (d) => `It ends at byte ${d.to} of a ${d.what} that has ${d.size}.`,
  'dump.overlap': (d) => `It lies over ${d.other}, which reaches beyond byte ${d.at}.`,
  'dump.no-room': (d) =>
    `Page ${d.page + 1}${d.switch === null ? '' : `, switch ${d.switch + 1}`}: the controller has no room for ${d.what}.`,
  'dump.form': (d) => `This is not how a controller keeps its pages: expected ${d.expected}, found ${d.found}.`,
  'controller.same-place': (d) => `${d.first} and ${d.second} of ${d.unit} lie in the same place on the floor.`,
  'show.range': (d) => `The lower end, ${d.low}, has to lie below the upper end, ${d.high}.`,
  'show.order': (d) => `The ${d.what} must be in order, each at a place of its own.`,
  'show.slot-range': (d) => `${d.unit} has ${n(d.slots, 'slot')}; index ${d.index} (counted from 0) is past the last.`,
  'show.slot-shared': (d) => `Two slots of ${d.unit} are in the same place, index ${d.label}.`,
  'show.ramp-nowhere': (d) => `The last tempo ramps to ${d.bpm}, but no mark follows where it would arrive.`,
  'show.worst-below': (d) =>
    `A time of ${d.unit} is ${d.worst} ms at the worst, which is less than the ${d.typical} ms that it typically takes.`,
  'show.value-range': (d) => `${d.control} of ${d.unit} takes ${d.low} to ${d.high}; found ${d.value}.`,
  'show.variant-range': (d) => `${d.unit} has ${n(d.count, d.word)}, counted from 0; found ${d.value}.`,
  'show.variants-reach': (d) => `${d.unit} names ${n(d.count, d.word)}, but its messages reach only ${d.reach}.`,

  'show.sweep-selector': (d) =>
    `${d.control} of ${d.unit} is a selector: between two of its values there is nothing, so it cannot be swept. Use cues, one a step.`,
  'show.sweep-empty': (d) => `A sweep of ${d.control} of ${d.unit} ends before it begins.`,
  'show.not-tapped': (d) => `${d.control} of ${d.unit} is not tapped; taps need a control of the kind "tap".`,

  'smf.not-midi': (d) =>
    `This is not a Standard MIDI File: expected it to start with "MThd", found ${d.found === 'nothing' ? 'nothing' : `"${d.found}"`}.`,
  'smf.header-cut': (d) => `The file ends within its header, after ${n(d.bytes, 'byte')}: it is cut off.`,
  'smf.header-length': (d) => `The header says that it is ${n(d.length, 'byte')} long, which cannot be.`,
  'smf.format': (d) => `MIDI files are of format 0, 1 or 2; this one says ${d.format}.`,
  'smf.division': (d) =>
    d.division === 0
      ? 'The file divides a quarter note into 0 ticks, so nothing in it has a time.'
      : `The file's time division (${d.division}) is neither ticks a quarter note nor frames a second.`,
  'smf.no-tracks': () => 'The file has no track.',
  'smf.missing-tracks': (d) => `The header announces ${n(d.announced, 'track')}; the file has ${d.found}.`,
  'smf.extra-bytes': (d) => `${n(d.bytes, 'byte was', 'bytes were')} passed over after the last track.`,
  'smf.unknown-chunk': (d) => `A part named "${d.name}" (${n(d.length, 'byte')}) is not a track and was passed over.`,
  'smf.chunk-too-long': (d) =>
    `A part named "${d.name}" says that it is ${n(d.length, 'byte')} long, but only ${d.left} are left: the file is cut off or damaged.`,
  'smf.event-cut': (d) =>
    `The file ends inside an event: ${n(d.wanted, 'more byte', 'more bytes')} wanted, ${d.left} left.`,
  'smf.variable-length': () => 'A length or time runs on past its four bytes.',
  'smf.no-status': (d) =>
    `Data (${hex(d.byte)}) stands where a message should start, with no status before it that still counts.`,
  'smf.bad-status': (d) => `The status ${hex(d.byte)} does not belong in a MIDI file.`,
  'smf.data-byte': (d) => `A data byte should be 00 to 7F; found ${hex(d.byte)}.`,
  'smf.no-end': () => 'The track has no end mark; its last event was taken as its end.',
  'smf.after-end': (d) => `${n(d.bytes, 'byte was', 'bytes were')} passed over after the track's end mark.`,
  'smf.tempo': (d) => `A tempo of ${d.micros} microseconds a quarter note cannot be played.`,
  'smf.meta-length': (d) => `The ${d.meta} event should hold ${n(d.expected, 'byte')}; it holds ${d.length}.`,
  'smf.metre': (d) => `A metre of ${d.beats}/${d.unit} is outside 1-255 beats of 1/1 to 1/128 and was passed over.`,
  'smf.too-many-songs': (d) =>
    `The file holds ${d.songs} songs; the first ${d.limit} were read, which is what a show holds.`,
  'smf.too-long': (d) => `The file runs to ${d.bars} bars; a song holds up to ${d.limit}.`,
  'smf.too-many': (d) => `The file holds more than ${d.limit} events.`,
  'smf.metre-moved': (d) =>
    `A metre change inside a bar was moved to the start of bar ${d.bar}; messages keep their places.`,
  'smf.marker-moved': (d) => `The marker "${d.name}" stands inside bar ${d.bar}; its section starts with the bar.`,
  'smf.ports-assumed': (d) =>
    `The file does not say which cables it was made for: ${n(d.ports, 'port is', 'ports are')} taken as USB. Set the cable on the rig to have its time counted.`,
  'smf.left-out': (d) => `Left out because nothing is sent for it: ${n(d.count, 'event')} (${d.what}).`,
  'smf.last-moment': (d) =>
    `${n(d.count, 'message')} in the last moment of "${d.song}", after its last bar line: kept in that bar, at ${d.count === 1 ? 'its' : 'their'} own time.`,
  'smf.smpte': (d) =>
    `The file counts ${d.frames} frames a second of ${n(d.ticks, 'tick')}, not beats; it was laid out at 120.`,
  'smf.lead-in': (d) =>
    `Messages leave before the song starts, so the file begins ${n(d.bars, 'bar')} (${d.millis} ms) early: bar 1 of the song is bar ${d.bars + 1} of the file.`,
  'smf.lead-ins': (d) =>
    `In front of ${n(d.songs, 'song')} the file has bars of its own, because messages leave before the song starts.`,
  'smf.one-track': (d) =>
    `In one track nothing says which port a message belongs to: units on channel ${d.channels.join(', ')} hang on different ports and cannot be told apart in the file. Write a track for each unit instead.`,
  'export.left-out': (d) => `Not in the file: ${d.what.join(', ')}.`,
  'smf.ramp-steps': (d) =>
    `Tempo ramps are written as ${n(d.steps, 'step')}; no event moves by more than ${d.micros / 1000 + 0.05} ms.`,
  'smf.division-fallback': (d) =>
    `Places are rounded to 1/${d.division} of a quarter note, the finest that such a file can hold.`,
  'smf.metre-unit': (d) => `The length of bar ${d.bar} was rounded: a file can only say it in 128ths.`,
  'smf.no-slot': (d) => `At ${d.at} a program calls no slot of ${d.unit}; it was kept as it stands.`,
  'smf.selector-ramp': (d) =>
    `From ${d.from} to ${d.to} a ramp runs through ${d.what} of ${d.unit}, which has no values in between: ${
      d.steps ? 'it became one step, to where it ends.' : 'the unit would step through all of them.'
    }`,
  'smf.too-wide': (d) => `The song is too long for a MIDI file (${d.ticks} ticks).`,

  'list.encoding': (d) =>
    `The file is not text in UTF-8 or UTF-16: byte ${d.offset} belongs to no character. Save the list again as UTF-8.`,
  'list.not-text': (d) =>
    `There is a character in it that is not text (code ${d.code}): the list was probably saved or copied in another encoding.`,
  'list.empty': () => 'There is no name in the list.',
  'list.too-long': (d) => `The list has ${n(d.rows, 'line')}; ${d.limit} are the most that a unit can have.`,
  'list.quotes': () => 'A quotation mark is opened here and never closed.',
  'list.no-names': (d) => `None of the columns is headed "name"; found ${d.columns.map((c) => `"${c}"`).join(', ')}.`,
  'list.no-such-slot': (d) => `${d.unit} has no slot "${d.label}"; its slots are written like ${d.example}.`,
  'list.slot-twice': (d) => `Slot ${d.label} has a name in line ${d.row} already.`,
  'list.past-end': (d) => `"${d.name}" is past the last of the ${n(d.slots, 'slot')}.`,
  'list.name-long': (d) => `The name has ${d.length} characters; up to ${d.limit} are kept.`,
  'list.same-name': (d) => `"${d.name}" stands in line ${d.row} too; the two are told apart by their places only.`,
  'list.gaps': (d) => `${n(d.count, 'slot')} between the listed ones ${d.count === 1 ? 'is' : 'are'} not in the list.`,

  'csv.empty': () => 'The table is empty.',
  'csv.too-long': (d) => `The table has more lines than the ${d.limit} that are taken.`,
  'csv.columns': (d) =>
    `The first line has to name the columns; ${d.missing.join(', ')} is missing. There are: ${d.columns.join(', ')}.`,
  'csv.made-of': (d) =>
    `"${d.found}" looks like what a spreadsheet made of ${d.meant.map((m) => `"${m}"`).join(' or ')}. Write ${d.meant.length === 1 ? `"${d.meant[0]!}"` : 'the one that is meant'} there, as text, or say how such names are read.`,
  'csv.number-taken': (d) =>
    `"${d.control}" is new on number ${d.number}, which "${d.other}" has already: both are sent the same there.`,
  'csv.no-such': (d) => `${d.of || 'The show'} has no ${d.what} "${d.name.slice(0, 60)}".`,
  'csv.many': (d) =>
    `${d.of || 'The show'} has ${d.count} of the name "${d.name.slice(0, 60)}" (${d.what}), so it is not clear which is meant.`,
  'csv.twice': (d) => `${d.what} stands here twice for ${d.name}.`,
  'csv.value': (d) => `Expected ${d.expected.slice(0, 12).join(', ')}; found "${d.found.slice(0, 60)}".`,
  'csv.no-value': (d) => `${d.control} has no value "${d.found.slice(0, 60)}".`,
  'csv.place': (d) => `"${d.found.slice(0, 40)}" is no place in ${d.song}: expected bar|beat, as in 17|3.`,
  'csv.other-name': (d) =>
    `${d.unit} has "${d.there}" at ${d.label}, not "${d.found}". Leave the place empty to find the preset by its name, or the name to take what is there.`,
  'csv.control': (d) =>
    `The settings of ${d.control} do not fit its kind, at ${d.part}: expected ${d.expected}, found ${d.found}.`,

  'xml.too-long': (d) => `The document is ${n(d.bytes, 'character')} long; ${d.limit} are the most that is read.`,
  'xml.declarations': () =>
    'The document declares things of its own (entities or elements) at its head, which is not read for safety. Remove what stands in [ ] there.',
  'xml.too-deep': (d) => `Elements stand inside each other more than ${d.limit} deep; no name document does that.`,
  'xml.syntax': (d) => `The document is not well-formed XML: ${d.detail}`,
  'xml.root': (d) => `Expected the document to be a ${d.expected}, found ${d.found}.`,
  'xml.element': (d) =>
    `${d.element} does not belong here in ${d.parent}; expected ${d.expected.length === 0 ? 'its end' : d.expected.join(' or ')}.`,
  'xml.missing': (d) => `${d.element} ends too soon; expected ${d.expected.join(' or ')} in it.`,
  'xml.attribute': (d) => `${d.element} has no attribute ${d.attribute} in the published structure.`,
  'xml.attribute-missing': (d) => `${d.element} has to have the attribute ${d.attribute}.`,
  'xml.value': (d) => `${d.attribute} of ${d.element} should be ${d.expected}; found "${d.found}".`,
  'xml.text': (d) => `${d.element} holds no text; found "${d.found}".`,
  'names.list-missing': (d) => `It refers to the ${d.kind} "${d.name}", which is not in the document.`,
  'names.no-slot': (d) =>
    `"${d.name}" is called by bank ${d.bank}, program ${d.program} (counted from 0), which calls no slot of this unit.`,
  'names.slot-twice': (d) => `"${d.name}" would be a second name for slot ${d.label}.`,
  'names.control-taken': (d) => `"${d.name}" is on control ${d.number}, which the map has a control for already.`,
  'names.letters': (d) =>
    d.count === 1
      ? '1 sign that XML cannot hold is written as \uFFFD.'
      : `${d.count} signs that XML cannot hold are written as \uFFFD.`,
  'names.left-out': (d) => `${d.control} is not in the document, which has no way to say ${d.kind}.`,

  'unit.not-a-unit': (d) =>
    `This is not a unit of Hollow Lantern: expected the format "hollow-lantern-unit", found ${d.found}.`,

  'part.not-a-part': (d) =>
    `This is not a part of a show of Hollow Lantern: expected the format "hollow-lantern-part", found ${d.found}.`,
  'part.lost': (d) => `${d.where}: ${d.unit} has no ${d.what}, so it is left out.`,
  'part.opening': (d) =>
    d.tone === null
      ? `${d.song} opens with nothing, as it did in the show that it comes from.`
      : `${d.song} opens with ${d.tone}, as it did in the show that it comes from.`,
  'part.no-place': (d) =>
    `${d.unit} has another preset where ${d.name || 'a preset without a name'} was. Its tones keep it by name: put it into the preset list, or choose another in the tones.`,

  'compile.no-port': (d) => `${d.unit} has no cable from a port, so nothing can be sent to it. Connect it on the rig.`,
  'compile.port-off': (d) => `${d.port} is switched off, so nothing is sent to ${d.unit}.`,

  'structure.form': (d) =>
    `"${d.text}" is not a line of a structure. Write 17 7/8, 1 tempo 126, 41 ramp 132 to 57, 9 Chorus, 25 = 18, pickup 2, call Solo 2 before 33, or 33 move to 49.`,
  'structure.metre': (d) =>
    `"${d.text}" is not a metre. Expected up to 255 beats of a whole note or a half, down to a 128th, as in 7/8.`,
  'structure.tempo': (d) => `A tempo is from ${d.from} to ${d.to} beats a minute.`,
  'structure.cannot': (d) =>
    `"${d.text}" changes nothing here, or cannot be: a section moves from the bar that it begins at, and a ramp needs bars to end in.`,

  'position.form': (d) => `"${d.text}" is not a place in a song. Write bar|beat, as in 17|3 or 17|3.5.`,
  'position.bar': (d) =>
    d.meant === ''
      ? `There is no bar ${d.number}; the song has bars up to ${d.last}.`
      : `No bar of the song is printed ${d.number}. Counted from the start, bar ${d.number} is ${d.meant}.`,
  'position.time': (d) => `Bar ${d.number} is printed ${d.times === 1 ? 'once' : `${d.times} times`}.`,
  'position.beat': (d) => `Beat ${d.beat} is outside the bar, which has beats ${d.from} to ${d.to}.`,
  'position.tick': (d) => `Tick ${d.tick} is past the beat, which has ${d.beatTicks} ticks counted from 0.`,
};

/** A place in a few words, for the front of a sentence; empty where there is none. */
export function placeWords(place: Place): string {
  switch (place.in) {
    case 'bytes':
      return `${place.track === undefined ? '' : `track ${place.track}, `}byte ${place.offset}`;
    case 'text':
      return `line ${place.row}, column ${place.column}`;
    case 'show':
      return place.path.map((step, i) => (typeof step === 'number' ? `[${step}]` : `${i ? '.' : ''}${step}`)).join('');
    case 'nowhere':
      return '';
  }
}

/** What a problem says, without its place. */
export const sentence = (p: Problem): string => (SENTENCES[p.code] as (data: Problem['data']) => string)(p.data);

/** One clear line: the place, then the sentence. */
export function problemLine(p: Problem): string {
  const place = placeWords(p.place);
  return place === '' ? sentence(p) : `${place}: ${sentence(p)}`;
}
