import type { Path } from '../meaning';
import type { Bytes } from '../midi';
import type { UnitSpec } from '../rig';
import type { Micros } from '../time';
import type { Send } from './expand';
import type { Job } from './schedule/job';

/** What a job may not leave before: the start of the song, or the due time of another cue. */
export interface Release {
  readonly at: Micros;
  /** Null is the start of the song, less the time that it allows. */
  readonly cueId: string | null;
  /** When the job's own cue is due. */
  readonly due: Micros;
}

/** A message to a unit that is still on its way to its port's schedule. */
export interface PlannedJob extends Job {
  readonly cueId: string;
  readonly unit: UnitSpec;
  readonly path: Path;
  readonly send: Send;
  readonly origin: Release;
  /**
   * Of what follows a recall in the same change: it ends no later than `maxBehind` behind the end of job `on`, wherever
   * that one goes, so that it takes effect when the preset is there, or as soon as the unit takes it. A preset that is
   * called early, for what its rules send to other units, would sound as it is stored until then; and of two calls of
   * another unit, by the preset and by the variant, the second would not come as was reckoned.
   */
  readonly closeTo: { readonly on: number; readonly maxBehind: Micros } | null;
}

/** Bytes for a whole port and no unit: its clock. */
export interface RawJob extends Job {
  readonly cueId: string;
  readonly unit: null;
  readonly path: Path;
  readonly send: { readonly bytes: Bytes };
}

/** Whatever waits to leave on a port. */
export type PortJob = PlannedJob | RawJob;

/** Mutable form, used while building. */
export type Writable<T> = { -readonly [K in keyof T]: T[K] };
