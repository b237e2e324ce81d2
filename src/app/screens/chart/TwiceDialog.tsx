import { Dialog, Heading } from 'react-aria-components';
import type { Cue } from '../../../core/show';
import type { Ticks } from '../../../core/time';
import { Button, MainButton } from '../../widgets/controls';
import { Last, Sheet, Veil } from '../../widgets/dialogParts';
import type { Wanted } from './placeables';

/** A tone that is to stand where tones stand already. */
export interface Twice {
  readonly wanted: Wanted;
  readonly at: Ticks;
  readonly there: readonly Cue[];
  /** The place and those that stand there, in words. */
  readonly words: string;
}

interface Props {
  readonly twice: Twice | null;
  readonly onReplace: (twice: Twice) => void;
  readonly onBoth: (twice: Twice) => void;
  readonly onClose: () => void;
}

/** Asks whether a tone takes the place of another, or stands beside it. */
export function TwiceDialog({ twice, onReplace, onBoth, onClose }: Props) {
  return (
    <Veil isOpen={twice !== null} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Sheet>
        <Dialog>
          <Heading slot="title">A tone stands there already</Heading>
          {twice && (
            <>
              <p>
                {twice.words}. Put {twice.wanted.name} in its place, or have both?
              </p>
              <Last style={{ marginTop: 18 }}>
                <Button onPress={onClose}>Cancel</Button>
                <Button onPress={() => onBoth(twice)}>Have both</Button>
                <MainButton autoFocus onPress={() => onReplace(twice)}>
                  Put it in its place
                </MainButton>
              </Last>
            </>
          )}
        </Dialog>
      </Sheet>
    </Veil>
  );
}
