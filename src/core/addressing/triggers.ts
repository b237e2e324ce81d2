/** What of a switch can do something: that it is pressed, pressed again (it flips between two), let go, held, or pressed twice. */
export const TRIGGERS = ['press', 'again', 'release', 'long', 'double'] as const;
export type Trigger = (typeof TRIGGERS)[number];
