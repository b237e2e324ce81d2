import { Key } from 'selenium-webdriver';

/** An event of the keyboard as the browser's devtools take it. */
export interface KeyEvent {
  readonly type: 'keyDown' | 'rawKeyDown' | 'keyUp';
  readonly key: string;
  readonly code: string;
  readonly windowsVirtualKeyCode: number;
  readonly modifiers: number;
  readonly text?: string;
  /** What an editor does by it. */
  readonly commands?: readonly string[];
}

interface Named {
  readonly key: string;
  readonly code: string;
  readonly keyCode: number;
  readonly text?: string;
  /** Its bit, if it is held for others. */
  readonly holds?: number;
}

const SHIFT = 8;
const CONTROL = 2;

const NAMED: ReadonlyMap<string, Named> = new Map([
  [Key.SHIFT, { key: 'Shift', code: 'ShiftLeft', keyCode: 16, holds: SHIFT }],
  [Key.CONTROL, { key: 'Control', code: 'ControlLeft', keyCode: 17, holds: CONTROL }],
  [Key.ALT, { key: 'Alt', code: 'AltLeft', keyCode: 18, holds: 1 }],
  [Key.META, { key: 'Meta', code: 'MetaLeft', keyCode: 91, holds: 4 }],
  [Key.ENTER, { key: 'Enter', code: 'Enter', keyCode: 13, text: '\r' }],
  ['\n', { key: 'Enter', code: 'Enter', keyCode: 13, text: '\r' }],
  [Key.TAB, { key: 'Tab', code: 'Tab', keyCode: 9 }],
  [Key.ESCAPE, { key: 'Escape', code: 'Escape', keyCode: 27 }],
  [Key.BACK_SPACE, { key: 'Backspace', code: 'Backspace', keyCode: 8 }],
  [Key.DELETE, { key: 'Delete', code: 'Delete', keyCode: 46 }],
  [Key.SPACE, { key: ' ', code: 'Space', keyCode: 32, text: ' ' }],
  [Key.PAGE_UP, { key: 'PageUp', code: 'PageUp', keyCode: 33 }],
  [Key.PAGE_DOWN, { key: 'PageDown', code: 'PageDown', keyCode: 34 }],
  [Key.END, { key: 'End', code: 'End', keyCode: 35 }],
  [Key.HOME, { key: 'Home', code: 'Home', keyCode: 36 }],
  [Key.ARROW_LEFT, { key: 'ArrowLeft', code: 'ArrowLeft', keyCode: 37 }],
  [Key.ARROW_UP, { key: 'ArrowUp', code: 'ArrowUp', keyCode: 38 }],
  [Key.ARROW_RIGHT, { key: 'ArrowRight', code: 'ArrowRight', keyCode: 39 }],
  [Key.ARROW_DOWN, { key: 'ArrowDown', code: 'ArrowDown', keyCode: 40 }],
  [Key.F6, { key: 'F6', code: 'F6', keyCode: 117 }],
]);

/** The keys of marks on a US keyboard: code, key code, and the marks without and with shift. */
const MARKS: readonly (readonly [string, number, string, string])[] = [
  ['Semicolon', 186, ';', ':'],
  ['Equal', 187, '=', '+'],
  ['Comma', 188, ',', '<'],
  ['Minus', 189, '-', '_'],
  ['Period', 190, '.', '>'],
  ['Slash', 191, '/', '?'],
  ['Backquote', 192, '`', '~'],
  ['BracketLeft', 219, '[', '{'],
  ['Backslash', 220, '\\', '|'],
  ['BracketRight', 221, ']', '}'],
  ['Quote', 222, "'", '"'],
  ['Space', 32, ' ', ' '],
];
/** What an editor does by a key with control: the devtools leave that to whoever sends it. */
const EDITS: Readonly<Record<string, string>> = { a: 'selectAll', c: 'copy', v: 'paste', x: 'cut' };

const SHIFTED_DIGITS = ')!@#$%^&*(';

/** The key that writes a character, and whether shift is held for it. A character of no such key has no code. */
function keyOf(char: string): Named & { readonly shift: boolean } {
  const upper = char.toUpperCase();
  if (/^[A-Z]$/.test(upper)) {
    return { key: char, code: `Key${upper}`, keyCode: upper.charCodeAt(0), text: char, shift: char === upper };
  }
  const shifted = SHIFTED_DIGITS.indexOf(char);
  const digit = shifted >= 0 ? String(shifted) : char;
  if (/^\d$/.test(digit)) {
    return { key: char, code: `Digit${digit}`, keyCode: digit.charCodeAt(0), text: char, shift: shifted >= 0 };
  }
  const mark = MARKS.find(([, , plain, other]) => char === plain || char === other);
  if (mark) return { key: char, code: mark[0], keyCode: mark[1], text: char, shift: char !== mark[2] };
  return { key: char, code: '', keyCode: 0, text: char, shift: false };
}

/**
 * What the keyboard does when keys are pressed one after the other. Keys that hold (shift, control, …) are held until
 * the end of their text, or until `Key.NULL`: a chord is a text of its own.
 */
export function keyEvents(keys: readonly string[]): readonly KeyEvent[] {
  const events: KeyEvent[] = [];
  let modifiers = 0;
  const put = (type: KeyEvent['type'], { key, code, keyCode }: Named, more: object = {}): void => {
    events.push({ type, key, code, windowsVirtualKeyCode: keyCode, modifiers, ...more });
  };
  for (const text of keys) {
    const held: Named[] = [];
    const release = (): void => {
      for (const one of held.splice(0).toReversed()) {
        modifiers &= ~one.holds!;
        put('keyUp', one);
      }
    };
    for (const char of Array.from(text)) {
      if (char === Key.NULL) {
        release();
        continue;
      }
      const named = NAMED.get(char);
      if (named?.holds !== undefined) {
        modifiers |= named.holds;
        held.push(named);
        put('rawKeyDown', named);
        continue;
      }
      const one = named ?? keyOf(char);
      const own = 'shift' in one && one.shift ? SHIFT : 0;
      modifiers |= own;
      // With control, alt or meta a key writes nothing.
      const writes = one.text !== undefined && (modifiers & ~SHIFT) === 0;
      const edit = modifiers === CONTROL ? EDITS[char] : undefined;
      put(writes ? 'keyDown' : 'rawKeyDown', one, {
        ...(writes && { text: one.text }),
        ...(edit !== undefined && { commands: [edit] }),
      });
      put('keyUp', one);
      if (own > 0 && !held.some((h) => h.holds === SHIFT)) modifiers &= ~SHIFT;
    }
    release();
  }
  return events;
}
