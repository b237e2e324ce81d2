import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { demoShows } from '../adapters/constants';
import { titledOnShelf } from '../state/shelf';

let entering: Promise<string> | undefined;

/** The demo show at once: the copy in this browser where there is one, else a fresh one. */
export function DemoScreen() {
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const enter = async (): Promise<string> => {
      const { show, sounds } = await demoShows.demo();
      return (await titledOnShelf(show.title)) ?? (await (await import('../state/desk')).shelve(show, sounds));
    };
    entering ??= enter().finally(() => (entering = undefined));
    entering.then(
      (id) => void navigate(`/show/${id}`, { replace: true }),
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  }, [navigate]);
  if (problem === null) return null;
  return (
    <main style={{ padding: 40 }}>
      <h1>The demo show cannot be opened</h1>
      <p>{problem}</p>
      <Link to="/">Back to all shows</Link>
    </main>
  );
}
