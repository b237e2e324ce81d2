import { useEffect, useState } from 'react';
import { setClock, setSongField, type Song, type Show } from '../../../core/show';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { CountIn } from '../../features/CountIn';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { exportSounds, loadPeaks } from '../../state/sound';
import { Panel, Row } from './panelParts';
import { type Props, AddTrack, TrackPart } from './TrackPart';
import { CallsPart } from './CallsPart';

const PARTS = [
  { id: '1', name: '1, on the beat' },
  { id: '2', name: '2' },
  { id: '3', name: '3' },
  { id: '4', name: '4' },
];

/** What is heard beside the units: click, count-in, calls, recordings, and the clock that units follow. */
export function SoundPanel({ show, song }: Props) {
  const { click } = song;
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    void loadPeaks(show, song);
  }, [show, song]);
  const setClick = (change: Partial<Song['click']>, label: string): void =>
    void perform(setSongField(show, song.id, 'click', { ...click, ...change }), label);
  return (
    <Panel aria-label="Sound of the song">
      <h2>Sound</h2>
      <Check isSelected={click.on} onChange={(on) => setClick({ on }, on ? 'click on' : 'click off')}>
        Click while it plays
      </Check>
      <Row style={{ flexWrap: 'nowrap' }}>
        <CountIn song={song} />
        <Pick
          label="Clicks a beat"
          choices={PARTS}
          value={String(click.parts)}
          onPick={(id) => setClick({ parts: Number(id) }, 'change the click')}
        />
      </Row>
      <h3>Recordings</h3>
      {song.tracks.map((track) => (
        <TrackPart key={track.id} show={show} song={song} track={track} />
      ))}
      <AddTrack show={show} song={song} />
      <CallsPart show={show} song={song} />
      <h3>MIDI clock to</h3>
      <ClockPorts show={show} song={song} />
      <h3>To practise with</h3>
      <Row>
        <Button
          onPress={() => {
            setSaid('Rendering …');
            void exportSounds(show, song).then(setSaid);
          }}
        >
          Sound as a WAV file
        </Button>
      </Row>
      {said !== null && (
        <Soft role="status" aria-label="Sound file">
          {said}
        </Soft>
      )}
    </Panel>
  );
}

interface ClockPortsProps {
  readonly show: Show;
  readonly song: Song;
}

/** Ports that are sent a clock through the song. */
function ClockPorts({ show, song }: ClockPortsProps) {
  return (
    <>
      {show.ports.map((port) => (
        <Check
          key={port.id}
          isSelected={song.clocks.some((c) => c.portId === port.id)}
          onChange={(on) =>
            perform(
              setClock(show, song.id, port.id, on ? newId() : null),
              on ? `clock on ${port.name}` : `no clock on ${port.name}`,
            )
          }
        >
          {port.name}
        </Check>
      ))}
    </>
  );
}
