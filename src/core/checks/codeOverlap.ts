import { codeText, frameMicros, labelOf } from '../clock';
import { codeRanges } from '../meaning';
import { indexShow, setSongField, setTimeCode } from '../show';
import { finding, type Check } from './finding';

/** Two songs of the set are at one place of the time code: only the later of them is played there. */
export const codeOverlap: Check = (show) => {
  const { portId, rate, sends } = show.timeCode;
  if (portId === null && sends.length === 0) return [];
  const { songs } = indexShow(show);
  const ranges = codeRanges(show, rate);
  return ranges.flatMap((range, i) => {
    const before = ranges[i - 1];
    if (!before || range.from >= before.to) return [];
    const place = { in: 'entry', setId: show.setId, entryId: range.entryId } as const;
    const [first, second] = [before.songId, range.songId].map((id) => songs.get(id)!.title) as [string, string];
    const free = codeText(labelOf(Math.ceil(before.to / frameMicros(rate)), rate), rate);
    const data = { song: second, before: first, free };
    // A song that stands in the set twice is at one place by itself.
    const fix = range.songId === before.songId ? null : setSongField(show, range.songId, 'code', free);
    return [finding('night.code-overlap', 'error', place, data, ...(fix ? [fix] : []))];
  });
};

/** Time code goes out on the port that it comes in on: a machine that passes it on sends us our own. */
export const codeLoop: Check = (show) => {
  const { portId, sends } = show.timeCode;
  if (portId === null || !sends.includes(portId)) return [];
  const port = indexShow(show).ports.get(portId)?.name ?? portId;
  const fix = setTimeCode(show, { sends: sends.filter((id) => id !== portId) });
  return [finding('night.code-loop', 'error', { in: 'port', portId }, { port }, ...(fix ? [fix] : []))];
};
