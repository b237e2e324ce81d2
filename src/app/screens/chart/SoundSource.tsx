import { Circle, Square } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { DropZone } from 'react-aria-components';
import styled from 'styled-components';
import { record, type Recording } from '../../adapters/ear';
import { Button, FormProblem, Soft } from '../../widgets/controls';
import { desk } from '../../theme/tokens';

const Zone = styled(DropZone)`
  display: grid;
  gap: 7px;
  padding: 10px;
  border: 1.5px dashed ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  &[data-drop-target] {
    border-color: ${desk.ink};
    background: ${desk.lampWash};
  }
`;

/** A place that sound files are dropped on. */
export function SoundDrop({
  onFile,
  children,
}: {
  readonly onFile: (file: File) => void;
  readonly children: ReactNode;
}) {
  return (
    <Zone
      aria-label="Drop a recording here"
      getDropOperation={() => 'copy'}
      onDrop={(event) => {
        const [first] = event.items.filter((item) => item.kind === 'file');
        if (first) void first.getFile().then(onFile);
      }}
    >
      {children}
    </Zone>
  );
}

/** Milliseconds below which a recording holds nothing that could be understood, or read. */
const SHORTEST = 300;

/** Takes a call up through the sound input: press, speak, press. */
export function RecordButton({ name, onFile }: { readonly name: string; readonly onFile: (file: File) => void }) {
  const [going, setGoing] = useState<Recording | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [millis, setMillis] = useState(0);
  const latest = useRef<Recording | null>(null);
  // Whoever leaves in the middle leaves no open microphone behind.
  useEffect(() => () => void latest.current?.stop(''), []);
  useEffect(() => {
    if (!going) return undefined;
    const since = performance.now();
    const timer = setInterval(() => setMillis(performance.now() - since), 100);
    return () => clearInterval(timer);
  }, [going]);
  const start = async (): Promise<void> => {
    setProblem(null);
    setMillis(0);
    try {
      const begun = await record();
      latest.current = begun;
      setGoing(begun);
    } catch {
      setProblem('There is no sound input, or the browser does not let it be used.');
    }
  };
  const stop = async (recording: Recording): Promise<void> => {
    setGoing(null);
    latest.current = null;
    const file = await recording.stop(name);
    if (millis < SHORTEST) setProblem('That was too short. Press, speak, and press again.');
    else onFile(file);
  };
  return (
    <>
      {going ? (
        <>
          <Button onPress={() => void stop(going)}>
            <Square size={14} aria-hidden /> Stop recording
          </Button>
          <Soft role="timer">{(millis / 1000).toFixed(1)} s</Soft>
        </>
      ) : (
        <Button onPress={() => void start()}>
          <Circle size={14} aria-hidden /> Speak it
        </Button>
      )}
      {problem !== null && <FormProblem>{problem}</FormProblem>}
    </>
  );
}
