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
