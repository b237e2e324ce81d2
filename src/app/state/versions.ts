import type { Read } from '../../core/problems';
import { LIMITS, type Show } from '../../core/show';
import { problemLine, said } from '../../wording';
import type { VersionRow } from '../persistence/db';
import type { ListedVersion } from '../persistence/versions';

export type { ListedVersion } from '../persistence/versions';

/** What the saved versions of a show need of the desk and of the shelf. */
export interface VersionNeeds {
  readonly show: () => Show | undefined;
  /** False where nothing would change. */
  readonly become: (show: Show, label: string) => boolean;
  readonly say: (text: string) => void;
  readonly keep: (row: VersionRow) => Promise<void>;
  readonly load: (showId: string, id: string) => Promise<Read<Show> | undefined>;
  readonly remove: (showId: string, id: string) => Promise<void>;
  readonly watch: (
    showId: string,
    on: (versions: readonly ListedVersion[]) => void,
    refused: (error: Error) => void,
  ) => () => void;
  readonly newId: () => string;
  readonly now: () => number;
}

/** States of the open show that were kept, and the way back to them. */
export interface Versions {
  /** Keeps the show as it is now. Whether that went well; else it was said why not. */
  readonly keep: (name: string) => Promise<boolean>;
  /** Keeps the show as it goes on stage, once a day. */
  readonly keepForToday: () => Promise<void>;
  /** A state as it was; undefined, and said, where it cannot be read. */
  readonly load: (version: ListedVersion) => Promise<Show | undefined>;
  /** The show becomes what it was; what it is now is kept first, and undo brings it back too. */
  readonly goBack: (version: ListedVersion) => Promise<void>;
  /** Keeps the show as it is before a file comes into it. Whether that went well; else it was said why not. */
  readonly keepBefore: (from: string) => Promise<boolean>;
  /** What a file made of the show takes its place, as an edit; what it is now is kept first. Whether it changed anything. */
  readonly bringIn: (after: Show, from: string) => Promise<boolean>;
  readonly remove: (version: ListedVersion) => Promise<void>;
  readonly watch: (showId: string, on: (versions: readonly ListedVersion[]) => void) => () => void;
}

export function createVersions(needs: VersionNeeds): Versions {
  const { show, say } = needs;
  const keep = async (name: string, why: VersionRow['why'] = 'kept', id = needs.newId()): Promise<boolean> => {
    const now = show();
    if (!now) return false;
    try {
      await needs.keep({ showId: now.id, id, name, savedAt: needs.now(), why, data: now });
      return true;
    } catch (error) {
      say(said.versionNotKept(name, error));
      return false;
    }
  };
  const keepBefore = (from: string): Promise<boolean> =>
    keep(`Before importing ${from}`.slice(0, LIMITS.title), 'before');
  const load: Versions['load'] = async ({ id, name }) => {
    const now = show();
    if (!now) return undefined;
    try {
      const read = await needs.load(now.id, id);
      if (read?.value) return read.value;
      say(said.versionUnread(name, read?.problems.map(problemLine)[0]));
    } catch (error) {
      say(said.versionFailed(name, error));
    }
    return undefined;
  };
  return {
    keep,
    keepForToday: async () => {
      const day = new Date(needs.now()).toLocaleDateString('en-GB', {
        day: 'numeric',
        month: 'short',
        year: 'numeric',
      });
      await keep(`On stage, ${day}`, 'before', `stage ${day}`);
    },
    load,
    goBack: async (version) => {
      const was = await load(version);
      // Without the present one kept there is no way on from the older one after a reload.
      if (!was || !(await keep(`Before going back to ${version.name}`, 'before'))) return;
      const changed = needs.become(was, `go back to ${version.name}`);
      say(said.wentBack(changed, version.name));
    },
    keepBefore,
    bringIn: async (after, from) => {
      if (!(await keepBefore(from))) return false;
      return needs.become(after, `import ${from}`);
    },
    remove: async ({ id, name }) => {
      const now = show();
      if (!now) return;
      await needs.remove(now.id, id).catch((e: unknown) => say(said.versionNotDeleted(name, e)));
    },
    watch: (showId, on) => needs.watch(showId, on, (e) => say(said.versionsUnread(e))),
  };
}
