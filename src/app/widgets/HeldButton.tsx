import type { ReactNode } from 'react';
import { Button, MainButton } from './controls';
import { useHeld } from './useHeld';

interface Props {
  /** What holding it does, as the button says it. */
  readonly children: ReactNode;
  readonly millis: number;
  readonly onHeld: () => void;
  readonly main?: boolean;
  readonly disabled?: boolean;
}

/** A button of the desk that is held, for what must not happen by a slip. */
export function HeldButton({ children, millis, onHeld, main = false, disabled = false }: Props) {
  const { held, tooShort, press } = useHeld(millis, onHeld);
  const Face = main ? MainButton : Button;
  return (
    <Face isDisabled={disabled} {...press} style={held ? { outline: '3px solid currentColor' } : {}}>
      {tooShort ? 'Hold it longer' : children}
    </Face>
  );
}
