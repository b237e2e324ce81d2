import type { ReactElement, ReactNode } from 'react';
import { Dialog, DialogTrigger, Heading } from 'react-aria-components';
import { Button } from './controls';
import { Sheet, Veil } from './dialogParts';

interface Props {
  /** The button's face. */
  readonly face: ReactNode;
  readonly title: string;
  /** Pixels, as far as the window has them. */
  readonly width?: number;
  readonly disabled?: boolean;
  readonly label?: string;
  /** A button of another look in the place of the usual one. */
  readonly trigger?: ReactElement;
  /** Drawn while it is open; `close` ends it. */
  readonly children: (close: () => void) => ReactNode;
  readonly onOpen?: () => void;
  readonly onClosed?: () => void;
}

/** A button that opens a sheet over the view. */
export function DialogButton({
  face,
  title,
  width,
  disabled = false,
  label,
  trigger,
  children,
  onOpen,
  onClosed,
}: Props) {
  return (
    <DialogTrigger onOpenChange={(open) => (open ? onOpen?.() : onClosed?.())}>
      {trigger ?? (
        <Button isDisabled={disabled} {...(label === undefined ? {} : { 'aria-label': label })}>
          {face}
        </Button>
      )}
      <Veil isDismissable>
        <Sheet style={width === undefined ? {} : { width: `min(${width}px, calc(100vw - 40px))` }}>
          <Dialog>
            {({ close }) => (
              <>
                <Heading slot="title">{title}</Heading>
                {children(close)}
              </>
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}
