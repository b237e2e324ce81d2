import { useEffect, useRef, useState } from 'react';

export interface Held {
  /** It is being held now. */
  readonly held: boolean;
  /** It was let go too soon, a moment ago: somebody does not know that it is to be held. */
  readonly tooShort: boolean;
  readonly press: { readonly onPressStart: () => void; readonly onPressEnd: () => void };
}

/** How long it is said that something is to be held, in milliseconds. */
const SAID_FOR = 1800;

/** A button that works when it was held so long, by pointer or by Space or Enter. */
export function useHeld(millis: number, onHeld: () => void): Held {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const hint = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const [held, setHeld] = useState(false);
  const [tooShort, setTooShort] = useState(false);
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      clearTimeout(hint.current);
    },
    [],
  );
  const onPressStart = (): void => {
    setHeld(true);
    setTooShort(false);
    timer.current = setTimeout(() => {
      timer.current = undefined;
      setHeld(false);
      onHeld();
    }, millis);
  };
  const onPressEnd = (): void => {
    setHeld(false);
    if (timer.current === undefined) return;
    clearTimeout(timer.current);
    timer.current = undefined;
    setTooShort(true);
    clearTimeout(hint.current);
    hint.current = setTimeout(() => setTooShort(false), SAID_FOR);
  };
  return { held, tooShort, press: { onPressStart, onPressEnd } };
}
