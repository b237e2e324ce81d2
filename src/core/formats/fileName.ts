/** A file name from a title and an ending: letters, digits and hyphens, "untitled" where nothing is left of it. */
export const fileName = (title: string, ending: string): string =>
  `${
    title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'untitled'
  }.${ending}`;
