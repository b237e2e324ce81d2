import type { ReactNode } from 'react';
import { compareShows } from '../../../core/meaning';
import type { Read } from '../../../core/problems';
import { sharing, type Show } from '../../../core/show';
import { showDifferenceWords } from '../../../wording';
import { MainButton, Soft } from '../../widgets/controls';
import { Told } from '../../features/Told';
import { say, versions } from '../../state/desk';
import { useShow } from '../../state/store';
import { Differences } from './filesParts';

interface Props {
  /** The show with the file in it, and what there is to say of it. */
  readonly read: Read<Show>;
  /** The file's name. */
  readonly from: string;
  readonly onDone: () => void;
  /** What can be chosen, between what is said and the button. */
  readonly children?: ReactNode;
}

/** What a file would make of the show, in words, before it does. */
export function Preview({ read, from, onDone, children }: Props) {
  const show = useShow();
  const after = read.value;
  const found = after ? compareShows(show, after) : [];
  const changes = after !== undefined && sharing(show, after) !== show;
  const bring = async (): Promise<void> => {
    if (!after || !(await versions.bringIn(after, from))) return;
    onDone();
    say(`${from} is in the show. Undo takes it out again; the show as it was is kept under Versions and storage.`);
  };
  return (
    <>
      <div style={{ margin: '12px 0' }}>
        <Told problems={read.problems} label={`About ${from}`} />
      </div>
      {children}
      {after && (
        <section aria-label="What changes">
          <h3>What changes in the show</h3>
          {!changes ? (
            <p style={{ marginTop: 8 }}>
              <Soft>Nothing: the show has all of this already.</Soft>
            </p>
          ) : (
            <Differences aria-label="What changes">
              {found.length === 0 && <li>Settings of the show, such as core tones or shared control numbers.</li>}
              {found.map((d, i) => (
                <li key={i}>{showDifferenceWords(d)}</li>
              ))}
            </Differences>
          )}
          <MainButton style={{ marginTop: 14 }} isDisabled={!changes} onPress={() => void bring()}>
            Import {from}
          </MainButton>
        </section>
      )}
    </>
  );
}
