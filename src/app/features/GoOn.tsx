import { X } from 'lucide-react';
import styled from 'styled-components';
import { indexShow, songTime, withoutEnd } from '../../core/show';
import { barOfTick, formatBar } from '../../core/time';
import { playSong } from '../state/desk';
import { forgetPlace, useResume } from '../state/resume';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { MainButton, SignButton } from '../widgets/controls';

/** On stage it stands under the song's title: what is wrong is said above the keys, and must not be covered. */
const Slip = styled.div<{ readonly $onStage: boolean }>`
  position: fixed;
  left: ${(p) => (p.$onStage ? 30 : 16)}px;
  ${(p) => (p.$onStage ? 'top: 100px; font-size: 22px;' : 'bottom: 92px;')}
  z-index: 6;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 8px 8px 14px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.lampWash};
  color: ${desk.ink};
  font-weight: 600;
`;

/** The page was loaded anew while a song played: it can go on from the bar it was in. */
export function GoOn({ onStage = false }: { readonly onStage?: boolean }) {
  const show = useShow();
  const resume = useResume((s) => s.resume);
  const song = resume?.showId === show.id ? indexShow(show).songs.get(resume.songId) : undefined;
  if (!resume || !song) return null;
  // A song without an end may have been anywhere behind its last bar.
  const { bars, end } = songTime(withoutEnd(song));
  const bar = barOfTick(bars, Math.min(resume.at, end - 1));
  return (
    <Slip $onStage={onStage} role="status" aria-label="Go on">
      {song.title} played when the page was loaded anew.
      <MainButton onPress={() => void playSong(song.id, Math.max(0, bar.tick), resume.entryId)}>
        Go on at bar {formatBar(bars, bar.bar, song.bars)}
      </MainButton>
      <SignButton aria-label="Do not go on" onPress={forgetPlace}>
        <X size={16} />
      </SignButton>
    </Slip>
  );
}
