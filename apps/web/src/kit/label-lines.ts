/** A letter of the drawings' face is so wide, as a share of its height, on an average. */
const LETTER = 0.5;

/**
 * A name broken at its spaces so that it goes into a box of a drawing, as far as its words let it.
 * @param room width of the box and @param size height of the letters, px
 */
export function labelLines(name: string, room: number, size: number): readonly string[] {
  const most = Math.max(1, Math.floor(room / (LETTER * size)));
  const lines: string[] = [];
  for (const word of name.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= most) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
