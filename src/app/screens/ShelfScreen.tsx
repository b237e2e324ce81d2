import { FolderOpen, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import useSWR from 'swr';
import { readShowFile } from '../../core/formats/show-file';
import { smfToShow } from '../../core/formats/smf';
import { hasErrors, type Problem, type Read } from '../../core/problems';
import { emptyShow, type Show } from '../../core/show';
import { problemLine } from '../../wording';
import { fetchDemo } from '../adapters/api';
import { Button, Complaint, MainButton, SignButton, Soft } from '../components/controls';
import { LanternMark } from '../components/LanternMark';
import { shelf } from '../persistence/db';
import { removeShow, watchShows, type Listed } from '../persistence/shows';
import { newId, saveNow, shelve } from '../state/desk';
import { desk, font } from '../theme/tokens';

const Page = styled.main`
  min-height: 100dvh;
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
`;

const Hero = styled.section`
  background: ${desk.night};
  color: ${desk.nightText};
  padding: 64px 56px;
  display: flex;
  flex-direction: column;
  gap: 26px;
  justify-content: center;
  & h1 {
    font: 800 60px/0.98 ${font.display};
    letter-spacing: -0.015em;
  }
  & p {
    max-width: 30em;
    font-size: 16px;
    color: ${desk.nightSoft};
  }
`;

const Key = styled.ul`
  display: grid;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    display: flex;
    align-items: center;
    gap: 14px;
    font-size: 15px;
  }
`;

const Side = styled.section`
  padding: 64px 56px;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 24px;
  & h2 {
    font-size: 24px;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 1.5px solid ${desk.ink};
  & li {
    display: flex;
    align-items: center;
    gap: 12px;
    border-bottom: 1px solid ${desk.line};
  }
  & a {
    flex: 1;
    min-width: 0;
    padding: 12px 4px;
    color: ${desk.ink};
    font: 700 18px/1.2 ${font.display};
    text-decoration: none;
  }
  & a:hover {
    color: ${desk.tide};
  }
`;

/** The first screen: what lies on this browser's shelf, and ways to put a show there. */
export function ShelfScreen() {
  const navigate = useNavigate();
  const [shows, setShows] = useState<readonly Listed[] | undefined>();
  const [complaint, setComplaint] = useState<string | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const demo = useSWR('/api/demo', fetchDemo);
  useEffect(() => {
    void saveNow();
    return watchShows(shelf, setShows);
  }, []);

  const enter = async (show: Show): Promise<void> => {
    const id = await shelve(show);
    await navigate(`/show/${id}`);
  };
  const openFile = async (file: File): Promise<void> => {
    const read = await readFile(file);
    if (read.value && !hasErrors(read.problems)) await enter(read.value);
    else setComplaint(`${file.name} was not opened. ${firstError(read.problems)}`);
  };

  return (
    <Page>
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
      <Side>
        <div>
          <h2>{shows && shows.length > 0 ? 'Your shows' : 'Start with a show'}</h2>
          <Soft>Everything stays in this browser until you hand a file on.</Soft>
        </div>
        {shows && shows.length > 0 && (
          <List aria-label="Shows">
            {shows.map((s) => (
              <li key={s.id}>
                <Link to={`/show/${s.id}`}>{s.title}</Link>
                <Soft>
                  {new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' }).format(s.savedAt)}
                </Soft>
                {asked === s.id ? (
                  <Button onPress={() => void removeShow(shelf, s.id)}>Really remove {s.title}</Button>
                ) : (
                  <SignButton aria-label={`Remove ${s.title}`} onPress={() => setAsked(s.id)}>
                    <Trash2 size={17} />
                  </SignButton>
                )}
              </li>
            ))}
          </List>
        )}
        <Row>
          <MainButton isDisabled={!demo.data} onPress={() => demo.data && void enter(demo.data)}>
            Open the demo show
          </MainButton>
          <Button onPress={() => void enter(emptyShow(newId(), 'New show'))}>New show</Button>
          <FileTrigger
            acceptedFileTypes={['.json', '.mid', '.midi']}
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
        {demo.error !== undefined && <Complaint>{String((demo.error as Error).message)}</Complaint>}
        {complaint !== null && <Complaint>{complaint}</Complaint>}
      </Side>
    </Page>
  );
}

async function readFile(file: File): Promise<Read<Show>> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (/\.midi?$/i.test(file.name)) return smfToShow(bytes, file.name.replace(/\.midi?$/i, ''));
  return readShowFile(new TextDecoder().decode(bytes));
}

const firstError = (problems: readonly Problem[]): string => {
  const error = problems.find((p) => p.severity === 'error');
  return error ? problemLine(error) : '';
};
