/** A repeatable stream of numbers (splitmix over 32 bits), kept apart from the engine's own. */
export function stream(seed) {
  let state = (seed * 0x9e3779b9) >>> 0;
  const next = () => {
    state = (state + 0x9e3779b9) >>> 0;
    let z = state;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return ((z ^ (z >>> 15)) >>> 0) / 4294967296;
  };
  const whole = (least, most) => least + Math.floor(next() * (most - least + 1));
  const pick = (list) => list[Math.floor(next() * list.length)];
  const share = (probability) => next() < probability;
  return { next, whole, pick, share };
}
