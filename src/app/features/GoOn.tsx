import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { indexShow, songTime, type Song } from '../../core/show';
import { barAt, formatBar } from '../../core/time';
import { agoWords } from '../../wording';
import { letBe, playSong } from '../state/desk';
import { barsToGoOn, useJournal, type BarThere, type PlaceRow } from '../state/journal';
import { useNews } from '../state/news';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { Button, MainButton, SignButton } from '../widgets/controls';

/** On stage it stands under the song's title: what is wrong is said above the keys, and must not be covered. */
const Slip = styled.div<{ readonly $onStage: boolean }>`
  position: fixed;
  left: ${(p) => (p.$onStage ? 30 : 16)}px;
  right: ${(p) => (p.$onStage ? '30px' : 'auto')};
  ${(p) => (p.$onStage ? 'top: 100px; font-size: 30px;' : 'bottom: 92px;')}
  z-index: 6;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${(p) => (p.$onStage ? '16px 20px' : '10px')};
  padding: ${(p) => (p.$onStage ? '22px 22px 22px 28px' : '8px 8px 8px 14px')};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.lampWash};
  color: ${desk.ink};
  font-weight: 600;
  & > p {
    flex: ${(p) => (p.$onStage ? '1 0 100%' : '0 1 auto')};
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    margin: 0;
  }
  & > button {
    ${(p) => p.$onStage && `min-height: 76px; padding: 0 24px; font: 700 26px/1 ${font.text};`}
  }
  @media (max-width: 700px) {
    left: 12px;
    right: 12px;
    ${(p) => p.$onStage && 'top: 128px;'}
    font-size: 20px;
    & > button {
      font-size: 18px;
      padding: 0 14px;
    }
  }
`;

/** So often what it would have come to by now is reckoned again, in milliseconds. */
const AGAIN = 500;

/** The present time, every half second. */
function useNow(): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), AGAIN);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** Whatever played a song ended while it did: it can go on, from the bar it was in or the one it would be in by now. */
export function GoOn({ onStage = false }: { readonly onStage?: boolean }) {
  const show = useShow();
  const place = useJournal((s) => s.interrupted);
  const song = place?.showId === show.id ? indexShow(show).songs.get(place.songId ?? '') : undefined;
  // What another computer plays meanwhile was not interrupted.
  const follows = useNews((s) => s.news.pair?.leads === false);
  return place?.playing && song && !follows ? <Offer onStage={onStage} place={place} song={song} /> : null;
}

interface OfferProps {
  readonly onStage: boolean;
  readonly place: PlaceRow;
  readonly song: Song;
}

function Offer({ onStage, place, song }: OfferProps) {
  const now = useNow();
  const { bars } = songTime(song);
  const { was, by } = barsToGoOn(song, place, now);
  const named = ({ bar }: BarThere): string => formatBar(bars, bar, song.bars);
  const goOn = (at: number): void => void playSong(song.id, at, place.entryId);
  /** A bar ahead of where it would be: there is time to come in on it. */
  const soon = by && by.bar < song.bars ? { bar: by.bar + 1, tick: barAt(bars, by.bar + 1).tick } : null;
  return (
    <Slip $onStage={onStage} role="status" aria-label="Go on">
      <p>
        {song.title} was at bar {named(was)}, {agoWords(now - place.when)}.
        <SignButton aria-label="Do not go on" onPress={letBe}>
          <X size={onStage ? 28 : 16} />
        </SignButton>
      </p>
      <MainButton onPress={() => goOn(was.tick)}>Go on at bar {named(was)}</MainButton>
      {soon && soon.bar > was.bar && (
        <Button onPress={() => goOn(soon.tick)}>at bar {named(soon)}: it would be there by now</Button>
      )}
    </Slip>
  );
}
