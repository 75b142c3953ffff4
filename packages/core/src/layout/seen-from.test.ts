import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { sceneOf } from '../derive/scene-of.js';
import type { Person, ProjectFile } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { endOf, frontLineOf } from '../document/body.js';
import { roofHeight } from '../shell/shell.js';
import { beginsAt, eyesOf, seatsFor, standsHere } from './seen-from.js';

const sceneIn = ({ project, priceBook }: ProjectFile) => {
  const scene = sceneOf(project, derive(project, priceBook), priceBook, FAMILIES);
  if (!scene) throw new Error('a demo has a room');
  return scene;
};
const wren = sceneIn(readProjectFile(wrenFile));
const thimble = sceneIn(readProjectFile(thimbleFile));
const ANN: Person = { id: 'ann', name: 'Ann', stature: 1700 };
const unit = (id: string, scene = wren) => {
  const found = scene.units.find((own) => own.id === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};

describe('standing in the room', () => {
  const bed = wren.units.find(({ family }) => family === 'bed-platform') ?? unit('bed');
  const kitchen = wren.units.find(({ family }) => family === 'base-run') ?? unit('kitchen');
  const line = frontLineOf(kitchen);
  const middle = (kitchen.body.x + endOf(kitchen)) / 2;
  it('has what the roof leaves above the head', () => {
    const place = beginsAt(wren, {}, ANN);
    const here = standsHere(wren, {}, ANN, place);
    expect(here.meets).toBeNull();
    expect(here.head).toBeCloseTo(roofHeight(wren.inner, ...place) - wren.inner.floor - 1700, 6);
    // who is 200 taller has 200 less
    expect(standsHere(wren, {}, { ...ANN, stature: 1900 }, place).head).toBeCloseTo(here.head - 200, 6);
  });
  it('meets what stands there, and the wall', () => {
    expect(standsHere(wren, {}, ANN, [bed.body.x + 300, 0]).meets).toBe(bed.id);
    const sign = line?.sign ?? 1;
    expect(standsHere(wren, {}, ANN, [middle, sign * ((line?.front ?? 0) + 100)]).meets).toBe(kitchen.id);
    expect(standsHere(wren, {}, ANN, [wren.inner.start + 50, 0]).meets).toBe('wall');
  });
  it('meets an open door only where it is open', () => {
    const door = wren.skeletons.get(kitchen.id)?.motions?.find(({ kind }) => kind === 'hinge');
    if (!door) throw new Error('the kitchen has a door');
    const before = ((door.shut.x0 + door.shut.x1) / 2) as number;
    const sign = line?.sign ?? 1;
    const place = [before - 100, sign * ((line?.front ?? 0) - 250)] as const;
    expect(standsHere(wren, {}, ANN, place).meets).toBeNull();
    expect(standsHere(wren, { [door.of]: 1 }, ANN, place).meets).toBe(kitchen.id);
  });
});

describe('where somebody sits and lies', () => {
  it('has the eyes of one who stands 0.936 of the stature up', () => {
    expect(eyesOf(ANN)).toBeCloseTo(1591.2, 6);
  });
  it('lies with the eyes a head above the mattress, and sits up from there by the sitting height', () => {
    const bed = wren.units.find(({ family }) => family === 'bed-platform');
    const lies = bed && FAMILIES.find(({ id }) => id === bed.family)?.lies?.(bed);
    if (!bed || !lies) throw new Error('Wren has a bed');
    const seats = seatsFor(wren, ANN).filter((seat) => seat.unit === bed.id);
    const top = wren.inner.floor + bed.body.to + 0.85 * lies.mattress;
    expect(seats.map(({ posture }) => posture)).toEqual(['lies', 'sits']);
    expect(seats[0]?.eyes[2]).toBeCloseTo(top + 0.115 * 1700, 6);
    // 0.52 of 1700 is 884, less 0.064 of 1700
    expect(seats[1]?.eyes[2]).toBeCloseTo(top + 884 - 108.8, 6);
  });
  it('gives a sleeper their own bed only', () => {
    const sleeper = wren.people[0];
    if (!sleeper) throw new Error('somebody lives in Wren');
    const beds = new Set(
      seatsFor(wren, sleeper)
        .filter(({ posture }) => posture === 'lies')
        .map((seat) => seat.unit),
    );
    expect(beds.size).toBe(1);
  });
  it('knows the seats of a small vehicle too', () => {
    const person = thimble.people[0] ?? ANN;
    const seats = seatsFor(thimble, person);
    expect(seats.length).toBeGreaterThan(0);
    for (const { eyes } of seats) {
      expect(eyes[0]).toBeGreaterThan(thimble.inner.start);
      expect(eyes[2]).toBeGreaterThan(thimble.inner.floor);
    }
  });
});
