import type { LetterFont } from '../../workers/protocol';

/** The family that stands behind the application's own in every text. */
const FAMILY = 'Lantern Letters';

/** Adds letters of a script to the page's fonts. */
export async function fontLetters({ weight, bytes }: LetterFont): Promise<void> {
  const face = new FontFace(FAMILY, bytes, { weight: String(weight) });
  document.fonts.add(await face.load());
}
