import type { ComparedFields, ShowDifference } from '../core/meaning';

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What each field is called of which it is said that it differs. */
const FIELDS: { readonly [K in keyof ComparedFields]: Readonly<Record<ComparedFields[K], string>> } = {
  show: {
    title: 'title',
    notes: 'notes',
    timeCode: 'time code',
    tolerance: 'how late or early a change may land',
    margin: 'margin',
    guard: 'guard',
    openingToneId: 'tone that songs open with',
    core: 'core tones',
    colours: 'what colours mean',
    accepted: 'findings that are let be',
    setId: 'which set is played',
  },
  player: { part: 'part', colour: 'colour' },
  port: {
    cable: 'cable',
    active: 'on or off',
    softThru: 'passing on of what arrives',
    splitter: 'splitter',
    spare: 'spare',
    delay: 'time',
    known: 'real ports',
  },
  unit: {
    monogram: 'short name',
    playerId: 'player',
    input: 'cable in',
    listens: 'what it listens to',
    returns: 'cable back',
    splitter: 'splitter',
    spare: 'spare',
    answered: 'answer to the question who it is',
    versions: 'other versions of its map',
    lostSlots: 'presets that its map lost',
    relays: 'relay rules',
    margin: 'margin',
    guard: 'guard',
  },
  profile: {
    name: 'name of its map',
    firmware: 'firmware',
    identity: 'what it answers when asked who it is',
    plan: 'labels and numbers of presets',
    variants: 'variants',
    controls: 'names, options or times of controls',
    effects: 'effects',
    engage: 'switch that a preset is heard by',
    panel: 'panel',
    senders: 'switches and pedals',
    controller: 'layout as a foot controller',
    times: 'times',
    whileSettling: 'what it does with messages while it settles',
    recallLoads: 'what a recall loads',
    silentInGap: 'silence while a preset loads',
    silence: 'how it is silenced',
  },
  preset: {
    panel: 'panel',
    recall: 'time',
    startControls: 'controls that it starts with',
    startVariant: 'variant that it starts with',
  },
  'house number': { number: 'number' },
  tone: { notes: 'notes' },
  recording: { type: 'kind of file', length: 'length', size: 'size' },
  stem: { hears: 'what it is made of' },
  'ear mix': { hears: 'levels' },
  move: { notes: 'notes' },
  song: {
    notes: 'notes',
    bars: 'length',
    pickup: 'pickup',
    preRoll: 'count-in',
    tempo: 'tempo',
    metre: 'metre',
    printed: 'bar numbers',
    sections: 'sections',
    calls: 'calls',
    opening: 'how it opens',
    openingToneId: 'opening tone',
    remarks: 'remarks',
    sweeps: 'sweeps',
    taps: 'taps of the tempo',
    clocks: 'clocks',
    click: 'click',
    announce: 'announcement',
    tracks: 'recordings',
    pattern: 'pattern of the click',
    stepped: 'going on by steps',
    open: 'open length',
    followsPortId: 'clock that it follows',
    code: 'time code at its start',
    levels: 'levels',
  },
  set: {
    onStage: 'time on stage',
    between: 'sound between songs',
    runsOn: 'running on',
    entries: 'running order',
    missing: 'who is missing tonight',
    tonight: 'units tonight',
  },
  reaction: {
    name: 'name',
    on: 'on or off',
    songId: 'song',
    hears: 'what it waits for',
    swallow: 'whether it goes further',
    does: 'what it does',
  },
  feet: { calls: 'how its pages are called', boat: 'emergency cables', menus: 'menus', dumps: 'memory dumps' },
};

/** What is called by its kind too: its name alone says too little. */
const NAMELESS: ReadonlySet<string> = new Set([
  'player',
  'port',
  'house number',
  'recording',
  'stem',
  'ear mix',
  'move',
  'set',
  'reaction',
]);

const fieldWords = (of: keyof ComparedFields, fields: readonly string[]): string =>
  list(fields.map((f) => (FIELDS[of] as Readonly<Record<string, string>>)[f] ?? f));

/** In what one state of a show differs from another, in a sentence. */
export function showDifferenceWords(d: ShowDifference): string {
  switch (d.what) {
    case 'added':
      return `New: ${d.of} ${d.name}.`;
    case 'removed':
      return `Gone: ${d.of} ${d.name}.`;
    case 'renamed':
      return `${capital(d.of)} ${d.from} is called ${d.to}.`;
    case 'tone':
      return `${d.name} is another sound: ${list(d.units)} differ${d.units.length === 1 ? 's' : ''}.`;
    case 'move':
      return `${d.name} does something else.`;
    case 'preset':
      if (d.from === '') return `${d.unit}: ${d.to} is new.`;
      return d.to === '' ? `${d.unit}: ${d.from} is gone.` : `${d.unit}: ${d.from} is ${d.to} now.`;
    case 'channel':
      return `${d.unit} is sent to on channel ${d.to}, was ${d.from}.`;
    case 'control':
      return `${d.unit}: ${d.name} has other numbers.`;
    case 'controls': {
      const told = [
        d.added.length > 0 ? `new: ${list(d.added)}` : '',
        d.removed.length > 0 ? `gone: ${list(d.removed)}` : '',
      ].filter((x) => x !== '');
      return `${d.unit}, controls ${told.join('; ')}.`;
    }
    case 'fields':
      return `${d.name === '' ? 'The show' : NAMELESS.has(d.of) ? `${capital(d.of)} ${d.name}` : d.name}: ${fieldWords(d.of, d.fields)} changed.`;
    case 'order':
      return `The ${d.of === 'ear mix' ? 'ear mixes' : `${d.of}s`} stand in another order.`;
    case 'song': {
      const cues = [
        d.added > 0 ? `${count(d.added, 'cue')} new` : '',
        d.removed > 0 ? `${count(d.removed, 'cue')} gone` : '',
        d.changed > 0 ? `${count(d.changed, 'cue')} changed` : '',
        d.fields.length > 0 ? `${fieldWords('song', d.fields)} changed` : '',
      ].filter((x) => x !== '');
      const how = cues.length === 0 ? '' : `: ${cues.join(', ')}`;
      return `${d.name}${how}${d.sounds ? '; its units are sent something else' : ''}.`.replace(
        /^([^:]*); its/,
        '$1: its',
      );
    }
    case 'page':
      return d.name === '' ? `${d.unit}: what stands on every page differs.` : `${d.unit}: page ${d.name} differs.`;
  }
}
