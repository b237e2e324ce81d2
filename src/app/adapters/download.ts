/** Hands a file to the user. */
export function download(name: string, data: string | Uint8Array<ArrayBuffer>, type: string): void {
  const url = URL.createObjectURL(new Blob([data], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser has taken the data over when the click returns.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name from a title: letters, digits and hyphens. */
export const fileName = (title: string, ending: string): string =>
  `${
    title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'untitled'
  }.${ending}`;
