/** A place in whole tens of centimetres: near enough to tell pieces apart, and it stays when something moves a little. */
const decimetres = (mm: number): string => String(Math.round(mm / 100));

/** A place as a piece of a name, mm: `at-12` or `at-12-up-3`. */
export const placed = (along: number, up: number | null = null): string =>
  `at-${decimetres(along)}${up === null ? '' : `-up-${decimetres(up)}`}`;

/** A place on the floor as a piece of a name: along the vehicle, and to which side of the centre line, mm. */
export const placedOnFloor = (x: number, y: number): string => {
  const off = Math.round(Math.abs(y) / 100);
  return `at-${decimetres(x)}-${off === 0 ? 'middle' : `${y < 0 ? 'left' : 'right'}-${off}`}`;
};

/**
 * Gives names that last to parts that belong to no unit: what they are and where they are, never how many came before.
 * Two at one place are told apart in the order in which they come.
 */
export function createNames(owner: string): (what: string, where: string) => string {
  const taken = new Map<string, number>();
  return (what, where) => {
    const name = `${owner}.${what}.${where}`;
    const before = taken.get(name) ?? 0;
    taken.set(name, before + 1);
    return before === 0 ? name : `${name}-${before + 1}`;
  };
}
