import type { FloorChoice, PriceBook, Settings, Survey } from '../../document/schema.js';
import { placedOpenings } from '../../shell/openings.js';
import { litresOf, materialOf } from '../../materials/material.js';
import { cureRule } from '../../rules/registry.js';

/** A bare board coated as the finished floor. */
export interface FloorCoats {
  readonly material: string;
  /** How many. When each is laid, and whether it is sanded before, is for the order of work to say. */
  readonly coats: number;
  /** What it takes, litres; null where the material does not state what a litre covers. The area of one coat, m2. */
  readonly litres: number | null;
  readonly area: number;
  /** Work of one coat, minutes. */
  readonly minutes: number;
  /** Hours from one coat to the next that the data sheet gives, at the temperature worked at. */
  readonly from: number;
  readonly to: number;
  /** Hours until it is walked on with shoes and units are set on it. */
  readonly cure: number;
  /** Which zones are coated in which order, mm along the vehicle: one ends where one can step out. */
  readonly zones: readonly { readonly from: number; readonly to: number }[];
  readonly out: string | null;
}

const MINUTES_PER_M2 = 4;
/** As far as one reaches with a roller, mm. */
const REACH_MM = 800;

/** Strips of the floor in the order they are coated: from the ends to the door one leaves by. */
function zonesTo(survey: Survey, length: number): Pick<FloorCoats, 'zones' | 'out'> {
  const doors = placedOpenings(survey).filter(({ opening }) => opening.kind === 'door' && opening.surface !== 'roof');
  // a door in the rear wall lets one work straight through; else the one in a side
  const door = doors.find(({ opening }) => opening.surface === 'rear') ?? doors[0];
  const at = !door ? length : door.opening.surface === 'rear' ? length : (door.from + door.to) / 2;
  const steps = (from: number, to: number): { from: number; to: number }[] => {
    const run = Math.abs(to - from);
    const count = Math.max(1, Math.ceil(run / REACH_MM));
    return Array.from({ length: count }, (_, i) => {
      const [a, b] = [from + ((to - from) * i) / count, from + ((to - from) * (i + 1)) / count];
      return { from: Math.min(a, b), to: Math.max(a, b) };
    });
  };
  const ends = [...(at < length ? [steps(length, at)] : []), ...(at > 0 ? [steps(0, at)] : [])];
  return { zones: ends.sort((a, b) => b.length - a.length).flat(), out: door?.opening.name ?? null };
}

/** The coats of a floor that is left bare: what they take, how long they wait, and in which order its zones are coated. Null when none are wanted. */
export function floorCoats(
  choice: FloorChoice,
  area: number,
  survey: Survey,
  length: number,
  settings: Pick<Settings, 'workTemperature'>,
  book: PriceBook,
): FloorCoats | null {
  const material = materialOf(book, choice.coat);
  if (choice.coats === 0 || !material?.recoat || area <= 0) return null;
  const slower = (hours: number): number => cureRule.run({ hours, temperature: settings.workTemperature }).hours;
  const minutes = Math.round(area * MINUTES_PER_M2);
  const [from, to] = [slower(material.recoat.from), slower(material.recoat.to)];
  return {
    material: material.id,
    coats: choice.coats,
    litres: litresOf(material, area * choice.coats),
    area,
    minutes,
    from,
    to,
    cure: slower(material.cureHours),
    ...zonesTo(survey, length),
  };
}
