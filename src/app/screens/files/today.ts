/** The date that stands at the foot of paper. */
export const today = (): string =>
  new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
