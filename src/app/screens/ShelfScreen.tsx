import { FolderOpen, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import type { Bundle } from '../../core/formats/bundle';
import type { Show } from '../../core/show';
import { demoShows } from '../adapters/constants';
import { Button, FormProblem, MainButton, SignButton, Soft } from '../widgets/controls';
import { DropAnywhere } from '../features/DropAnywhere';
import { LanternMark } from '../widgets/LanternMark';
import { strangeLetters } from '../state/strangeLetters';
import { removeFromShelf, sameOnShelf, watchShelf, type Listed } from '../state/shelf';
import { Page, Hero, Key, Side, Row, Again, List } from './shelf/shelfParts';

const dates = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' });

const saved = (at: number): string => (at > 0 ? dates.format(at) : 'date not known');

// What is not needed to draw the shelf is fetched when it is.
const theDesk = () => import('../state/desk');

async function newShow(): Promise<Pick<Bundle, 'show' | 'sounds'>> {
  const [{ emptyShow }, { newId }] = await Promise.all([import('../../core/show'), theDesk()]);
  return { show: emptyShow(newId(), 'New show'), sounds: new Map() };
}

/** The first screen: what lies on this browser's shelf, and ways to put a show there. */
export function ShelfScreen() {
  const navigate = useNavigate();
  const [shows, setShows] = useState<readonly Listed[] | undefined>();
  const [problem, setProblem] = useState<string | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const [twin, setTwin] = useState<(Bundle & { readonly same: Listed }) | null>(null);
  useEffect(() => {
    const refused = (error: Error): void => {
      setShows([]);
      setProblem(`The browser's storage cannot be read: ${error.message}`);
    };
    return watchShelf((list) => {
      setShows(list);
      // Titles in other scripts want their letters; most shelves have none, and wait for nothing.
      const titles = list.map((s) => s.title).join(' ');
      if (strangeLetters(titles).length > 0) void theDesk().then((desk) => desk.showLetters(titles));
    }, refused);
  }, []);

  const enter = async (show: Show, sounds?: Bundle['sounds']): Promise<void> => {
    try {
      const id = await (await theDesk()).shelve(show, sounds);
      await navigate(`/show/${id}`);
    } catch (error) {
      setProblem(`${show.title} was not opened: the browser refuses to store it. ${(error as Error).message}`);
    }
  };
  const openFile = async (file: File): Promise<void> => {
    setProblem(null);
    setTwin(null);
    const { readFile } = await import('../adapters/readFile');
    const opened = await readFile(file);
    if (opened.kind === 'refused') {
      setProblem(opened.problem);
      return;
    }
    const { bundle, told } = opened;
    const same = await sameOnShelf(bundle.show);
    if (same) {
      setTwin({ ...bundle, same });
      return;
    }
    await enter(bundle.show, bundle.sounds);
    // Opening a show clears the note, so it comes after.
    if (told.length > 0) (await theDesk()).say(told.join(' '));
  };
  const made = async (make: () => Promise<Pick<Bundle, 'show' | 'sounds'>>): Promise<void> => {
    try {
      const { show, sounds } = await make();
      await enter(show, sounds);
    } catch (error) {
      setProblem(`It was not opened: ${(error as Error).message}`);
    }
  };
  const some = shows !== undefined && shows.length > 0;
  const demo = () => void made(demoShows.demo);
  const fresh = () => void made(newShow);

  return (
    <Page>
      <title>All shows · Hollow Lantern</title>
      <DropAnywhere onFile={(file) => void openFile(file)} />
      <Welcome />
      <Side>
        <div>
          <h2>{shows && shows.length > 0 ? 'Your shows' : 'Start with a show'}</h2>
          <Soft>Everything stays in this browser until you export a file.</Soft>
        </div>
        {shows && shows.length > 0 && (
          <List aria-label="Shows">
            {shows.map((s) => (
              <ShowLine key={s.id} listed={s} asked={asked} setAsked={setAsked} />
            ))}
          </List>
        )}
        {twin && (
          <Again role="alert">
            <span>This show is in this browser already, saved {saved(twin.same.savedAt)}.</span>
            <MainButton onPress={() => void navigate(`/show/${twin.same.id}`)}>Open that one</MainButton>
            <Button onPress={() => void enter(twin.show, twin.sounds)}>Open as a copy</Button>
            <Button onPress={() => setTwin(null)}>Cancel</Button>
          </Again>
        )}
        {/* Not before it is known which button comes first: none jumps away under the pointer. */}
        <Beginnings shows={shows} some={some} fresh={fresh} demo={demo} openFile={openFile} />
        {shows && (
          <Soft style={{ fontSize: 13.5 }}>
            To practise mending: <Button onPress={() => void made(demoShows.faults)}>Open the demo with faults</Button>
          </Soft>
        )}
        <Soft style={{ fontSize: 13.5 }}>
          <Link to="/follow">Follow another computer</Link>, which has the show
        </Soft>
        {problem !== null && <FormProblem>{problem}</FormProblem>}
        <Soft style={{ fontSize: 13.5 }}>
          <a href="/licences.txt" target="_blank" rel="noreferrer">
            Licences of the packages in it
          </a>
        </Soft>
      </Side>
    </Page>
  );
}

interface BeginningsProps {
  readonly shows: readonly Listed[] | undefined;
  readonly some: boolean;
  readonly fresh: () => undefined;
  readonly demo: () => undefined;
  readonly openFile: (file: File) => Promise<void>;
}

/** Ways to begin: the demo, a new show, a file. */
function Beginnings({ shows, some, fresh, demo, openFile }: BeginningsProps) {
  return (
    <Row hidden={shows === undefined}>
      {some ? (
        <MainButton onPress={fresh}>New show</MainButton>
      ) : (
        <MainButton onPress={demo}>Open the demo show</MainButton>
      )}
      {some ? <Button onPress={demo}>Open the demo show</Button> : <Button onPress={fresh}>New show</Button>}
      <FileTrigger
        acceptedFileTypes={['.json', '.zip', '.mid', '.midi']}
        onSelect={(files) => {
          const file = files?.[0];
          if (file) void openFile(file);
        }}
      >
        <Button>
          <FolderOpen size={17} aria-hidden /> Open a show or MIDI file
        </Button>
      </FileTrigger>
    </Row>
  );
}

interface ShowLineProps {
  readonly listed: Listed;
  readonly asked: string | null;
  readonly setAsked: (value: string | null) => void;
}

/** A show of the shelf: opened by its title, deleted after a question. */
function ShowLine({ listed, asked, setAsked }: ShowLineProps) {
  return (
    <li>
      <Link to={`/show/${listed.id}`}>{listed.title}</Link>
      <Soft>{saved(listed.savedAt)}</Soft>
      {asked === listed.id ? (
        <>
          <Button onPress={() => void removeFromShelf(listed.id)}>Delete {listed.title}</Button>
          <Button aria-label={`Keep ${listed.title}`} onPress={() => setAsked(null)}>
            Cancel
          </Button>
        </>
      ) : (
        <SignButton aria-label={`Delete ${listed.title} …`} onPress={() => setAsked(listed.id)}>
          <Trash2 size={17} />
        </SignButton>
      )}
    </li>
  );
}

/** What the application is for, and its three marks. */
function Welcome() {
  return (
    <Hero>
      <LanternMark mark="lit" size={92} night silent />
      <h1>Hollow Lantern</h1>
      <p>
        Name the sounds of the whole rig once, put them on the bars of each song, and know before the show that every
        change lands on its beat.
      </p>
      <Key aria-label="The three marks">
        <li>
          <LanternMark mark="hollow" size={30} night silent /> hollow: not proven yet
        </li>
        <li>
          <LanternMark mark="lit" size={30} night silent /> lit: a dry run proved exactly this
        </li>
        <li>
          <LanternMark mark="cracked" size={30} night silent /> cracked: it fails, and says why
        </li>
      </Key>
    </Hero>
  );
}
