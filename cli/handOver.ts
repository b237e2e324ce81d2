import { propose, takeProposal } from '../src/core/feet';
import { compareShows } from '../src/core/meaning';
import { showJsonSchema, writeShowFile } from '../src/core/formats/show-file';
import { applyEdit, indexShow, type Show } from '../src/core/show';
import { showDifferenceWords } from '../src/wording';
import type { Outcome } from './commands';
import { Failure } from './failure';
import { readShow, writeWhole } from './files';

/** Pages of a controller that are proposed for the songs of the set, and what each switch of them does. */
export function pages(path: string, name: string | undefined, out: string | undefined, asJson: boolean): Outcome {
  const show = readShow(path);
  const controllers = show.units.filter((u) => u.profile.controller !== null);
  const wanted = name?.trim().toLowerCase();
  const unit = wanted === undefined ? controllers[0] : controllers.find((u) => u.name.toLowerCase() === wanted);
  if (!unit) {
    const names = controllers.map((u) => `"${u.name}"`).join(', ');
    throw new Failure(
      controllers.length === 0
        ? 'The show has no foot controller.'
        : `There is no controller "${name ?? ''}"; there is ${names}.`,
    );
  }
  const proposal = propose(show, unit.id);
  if (!proposal || proposal.pages.length === 0) {
    throw new Failure(`There is nothing to propose for ${unit.name}: no song of the set has a tone.`);
  }
  const { songs, tones } = indexShow(show);
  const switchOf = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const titleOf = (id: string): string => songs.get(id)?.title ?? '';
  const nameOf = (id: string): string => tones.get(id)?.name ?? '';
  const proposed = proposal.pages.map(({ songId, sharedWith, tones: placed }) => ({
    song: titleOf(songId),
    sharedWith: sharedWith.map(titleOf),
    switches: placed.map((t) => ({ switch: switchOf(t.switchId), tone: nameOf(t.toneId), why: t.why, cost: t.cost })),
  }));
  const core = proposal.core.map(nameOf);
  const left = proposal.left.map((l) => ({ song: titleOf(l.songId), tone: nameOf(l.toneId) }));
  let after: Show | undefined;
  if (out !== undefined) {
    let made = 0;
    const taken = takeProposal(show, proposal, () => `page-${unit.id}-${++made}`.slice(0, 64));
    after = taken ? applyEdit(show, taken) : show;
    writeWhole(out, writeShowFile(after));
  }
  if (asJson) {
    const data = { show: show.title, controller: unit.name, core, cost: proposal.cost, pages: proposed, left };
    return { lines: [JSON.stringify(data, null, 2)], code: left.length === 0 ? 0 : 1 };
  }
  const lines = [
    `${unit.name}: ${proposed.length === 1 ? '1 page' : `${proposed.length} pages`}${core.length === 0 ? '' : `; on every page ${core.join(', ')}`}`,
    ...proposed.flatMap((p) => [p.song, ...p.switches.map((s) => `  ${s.switch.padEnd(12)} ${s.tone}`)]),
    ...left.map((l) => `no room: ${l.tone} of ${l.song}`),
    ...(out === undefined ? [] : [`${out}: the show with these pages`]),
  ];
  return { lines, code: left.length === 0 ? 0 : 1 };
}

/** In what the second file differs from the first. */
export function compare(first: string, second: string, asJson: boolean): Outcome {
  const found = compareShows(readShow(first), readShow(second));
  if (asJson) {
    const differences = found.map((d) => ({ ...d, sentence: showDifferenceWords(d) }));
    return { lines: [JSON.stringify({ first, second, differences }, null, 2)], code: 0 };
  }
  return { lines: found.length === 0 ? ['Nothing differs.'] : found.map(showDifferenceWords), code: 0 };
}

/** The shape of a show file, on standard output or into a file. */
export function schema(out: string | undefined): Outcome {
  const text = JSON.stringify(showJsonSchema(), null, 1);
  if (out === undefined) return { lines: [text], code: 0 };
  writeWhole(out, `${text}\n`);
  return { lines: [`${out}: the shape of a show file`], code: 0 };
}
