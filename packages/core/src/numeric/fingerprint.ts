/** A short fingerprint of a text (FNV-1a, two runs of 32 bits). */
export function fingerprint(text: string): string {
  const run = (start: number): number => {
    let hash = start;
    for (let i = 0; i < text.length; i += 1) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
    return hash;
  };
  return run(0x811c9dc5).toString(16).padStart(8, '0') + run(0x9747b28c).toString(16).padStart(8, '0');
}
