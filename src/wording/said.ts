/** Why something failed, as whoever refused it says. */
const because = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Why another screen was not let in. */
export const JOIN_REFUSALS = {
  code: 'That is not the code of now: it holds for one screen and three minutes. Ask for a new one at the desk.',
  often: 'Too many tries from here. Wait a minute, then ask for a new code at the desk.',
  pass: 'The desk let its screens go, or was started anew: join with a new code.',
  full: 'As many screens are on as there can be. Close one of them.',
} as const;

/** Why this computer does not follow another one. */
export const PAIR_REFUSALS = {
  code: 'That is not the code of now: it holds for one computer and three minutes. Ask for a new one there.',
  often: 'Too many tries from here. Wait a minute, then ask for a new code there.',
  pass: 'The other computer is alone again, or was paired anew: follow it with a new code.',
  address: 'That is no address of a computer. The other one shows it, such as 192.168.1.20:4173.',
  unreachable:
    'No computer answers there. Both have to be in one network, and it has to share: see Set, Screens there.',
} as const;

/** What a clock that a song follows does. */
const CLOCK_WORDS = {
  wobbles: 'its clock wobbles by more than changes bear. What follows it may be late.',
  lost: 'its clock has stopped without a word. The song goes on at the tempo that it had.',
  back: 'its clock is back. The song follows it again.',
} as const;

/** What time code that leads does. */
const CODE_WORDS = {
  lost: () => 'Time code has stopped without a word. The song goes on in its own time.',
  back: () => 'Time code is back. The song follows it again.',
  backwards: () => 'Time code runs backwards: nothing is played until it runs forwards.',
  wild: () => 'More time code comes in than any machine sends. The song goes on in its own time.',
  rate: (rate: string) =>
    `Time code comes in at ${rate} frames a second; the show says another rate. Places are read at ${rate}.`,
} as const;

/** What the desk says in its note: what became of something, and what can be done. */
export const said = {
  clock: (port: string, what: keyof typeof CLOCK_WORDS): string => `${port}: ${CLOCK_WORDS[what]}`,
  code: (what: keyof typeof CODE_WORDS, rate: string): string => CODE_WORDS[what](rate),
  noSoundHere: (): string => 'The browser has no sound here.',
  nothingHeard: (): string => 'There is nothing to be heard: no click, no calls, no recording.',
  soundExported: (name: string, lead: number | string): string => `Exported ${name}: bar 1 begins ${lead} s into it.`,
  voiceMissing: (): string => 'The voice could not be loaded; tones stand in its place.',
  versionNotKept: (name: string, error: unknown): string =>
    `${name} was not kept: the browser’s storage refuses (${because(error)}).`,
  versionUnread: (name: string, why: string | undefined): string => `${name} cannot be read. ${why ?? 'It is gone.'}`,
  versionFailed: (name: string, error: unknown): string => `${name} cannot be read: ${because(error)}`,
  wentBack: (changed: boolean, name: string): string =>
    changed ? `The show is as in ${name}. Undo brings back what it was.` : 'The show is like that now.',
  versionNotDeleted: (name: string, error: unknown): string => `${name} was not deleted: ${because(error)}`,
  versionsUnread: (error: unknown): string => `Saved versions cannot be read: ${because(error)}`,
  storageUnread: (error: unknown): string => `The browser's storage cannot be read: ${because(error)}`,
  noSuchShow: (): string => 'There is no such show in this browser.',
  showUnread: (): string => 'The show cannot be read.',
  soundsLost: (names: readonly string[]): string =>
    `Not taken in, because it cannot be decoded or does not fit: ${names.join(', ')}.`,
  portsNotKept: (): string =>
    'Which real port is which could not be kept: the storage takes nothing. It holds until the page is left.',
  notExported: (error: unknown): string => `Not exported: ${because(error)}.`,
  exportedWithout: (names: readonly string[]): string =>
    `Exported without recordings. Not in the file: ${names.join(', ')}.`,
  exportedWith: (name: string, recordings: number, lacking: readonly string[]): string =>
    `Exported ${name} with ${recordings === 1 ? '1 recording' : `${recordings} recordings`}.${
      lacking.length === 0 ? '' : ` Not in this browser, so not in the file: ${lacking.join(', ')}.`
    }`,
  exported: (name: string): string => `Exported ${name}.`,
  codeSilent: (): string => CODE_WORDS.lost(),
  doesNotLand: (): string => 'Something in this song does not land: see the dry run before it is played.',
  playbackSilent: (): string => 'The playback does not answer. Reload the page: nothing that was typed is lost.',
  otherTabStarts: (): string => 'A message wanted to start a song, but another tab plays already.',
  otherTabPlays: (): string => 'Another tab plays already: stop it there first. Two would send to the same units.',
  forgets: (): string => 'The browser stores nothing now: after a crash it would not know where the show was.',
  editedThere: (): string => 'Not changed: this computer follows another one, where the show is edited.',
  playedThere: (): string => 'This computer follows another one. To play from here, let it lead first.',
  pairTaken: (): string => 'Another browser has taken the place of this one beside the other computer.',
  pairElsewhere: (): string => 'Another tab of this browser is one of the two computers: use that one, or close it.',
  leadsNow: (): string => 'This computer leads now: what the rig gets comes from here.',
  leadsNoLonger: (): string => 'The other computer leads now. This one is silent.',
  secondGone: (): string => 'The other computer is not there: nobody would take over.',
  otherLost: (): string => 'The other computer is not heard, and this one is silent. If it has ended, lead here.',
  notReady: (): string => 'This computer follows and would not take over: it does not have the show yet.',
  playsNow: (): string => 'Not cleared: a song of it plays. Stop it first.',
  editsHeldOff: (): string => 'Not changed: the show is on. Edits wait until it is over.',
  noPracticeNow: (): string => 'The show is on: songs are played as the audience gets them.',
  allSoundOff: (): string => 'All sound off was sent to every unit.',
  noCableThere: (): string => 'No cable leads to the controller and back: plug both in the rig first.',
  songGone: (): string => 'The song that played is not in the show any more: stopped.',
  portFlooded: (port: string): string =>
    `${port}: more arrives than its cable can pass on. What is too much is left out.`,
  computerSlept: (seconds: number | string): string =>
    `The computer slept for ${seconds} s: what was due meanwhile was not sent, the rig is caught up.`,
  portTakesAgain: (port: string): string =>
    `${port}: the real port takes messages again. What its units missed is sent.`,
  portTakesNothing: (port: string, standIn: boolean): string =>
    `${port}: the real port takes no messages. ${standIn ? 'The stand-in goes on.' : 'Its units get nothing.'}`,
  portBack: (port: string): string => `${port}: the real port is back. What its units missed is sent.`,
  tooMuchArrives: (port: string): string => `${port}: more arrives than can be taken in. What is too much is left out.`,
  recordingsMissing: (names: readonly string[]): string => `Recordings that are not in the file: ${names.join(', ')}.`,
} as const;
