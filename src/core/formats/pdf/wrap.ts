/** Pieces of a text between which a line may be broken. What is called in a unit stays on one line: a number that is torn off its bank is read wrong. */
export function piecesOf(text: string, unbroken: number): readonly string[] {
  const parts = text.split(', ');
  if (parts.length === 1 && text.length > unbroken) return text.split(' ').filter((w) => w !== '');
  return parts.flatMap((part, i) => {
    const whole = i < parts.length - 1 ? `${part},` : part;
    return part.length <= unbroken ? [whole] : whole.split(' ').filter((w) => w !== '');
  });
}

/** Lines of a text that are no wider than `width`; a word that is wider by itself is broken between letters. */
export function wrap(text: string, width: number, measure: (text: string) => number, unbroken = 18): readonly string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const piece of piecesOf(paragraph, unbroken)) {
      const longer = line === '' ? piece : `${line} ${piece}`;
      if (measure(longer) <= width) {
        line = longer;
        continue;
      }
      if (line !== '') lines.push(line);
      line = '';
      if (measure(piece) <= width) {
        line = piece;
        continue;
      }
      // What should stay on one line is broken between its words before a word is.
      if (piece.includes(' ')) {
        const own = wrap(piece, width, measure, 0);
        lines.push(...own.slice(0, -1));
        line = own.at(-1)!;
        continue;
      }
      for (const sign of piece) {
        if (line !== '' && measure(line + sign) > width) {
          lines.push(line);
          line = '';
        }
        line += sign;
      }
    }
    lines.push(line);
  }
  return lines;
}
