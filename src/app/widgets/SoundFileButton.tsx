import { FileTrigger } from 'react-aria-components';
import { Button } from './controls';

const ACCEPT = ['.wav', '.mp3', '.ogg', '.flac', 'audio/*'];

interface FileProps {
  readonly label: string;
  readonly disabled?: boolean;
  readonly onFile: (file: File) => void;
}

/** A button that chooses a sound file. */
export function SoundFileButton({ label, disabled = false, onFile }: FileProps) {
  return (
    <FileTrigger
      acceptedFileTypes={ACCEPT}
      onSelect={(files) => {
        const file = files?.[0];
        if (file) onFile(file);
      }}
    >
      <Button isDisabled={disabled}>{label}</Button>
    </FileTrigger>
  );
}
