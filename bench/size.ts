/** Whether only that the bench runs is looked at: each part at the smallest size it has. */
const SMALL = process.env.LANTERN_BENCH === 'small';

/** What a part of the bench takes: as it is meant, or at the smallest size. */
export const size = <T>(usual: T, small: T): T => (SMALL ? small : usual);
