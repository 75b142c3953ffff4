import { clearOver, strip, type LyingPlace } from './lying.js';
import { bedLengthRule, SHOULDERS, standingRule } from '../rules/people.js';
import { figureOf, type OwnFigures } from '../rules/rule.js';
import type { Person, Project } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import type { ArchShape } from '../shell/arch.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import { BED_HEIGHT_MM, type RoomFigures } from '../shell/room.js';
import type { BuildUpDepths } from '../layers/buildup.js';

/** A figure someone needs, what there is of it, and what is over or missing, mm. */
export interface PersonFigure {
  readonly person: Person;
  readonly what: 'standing' | 'lying' | 'shoulders';
  readonly there: number;
  /** What there was before the layers. */
  readonly bare: number;
  readonly wants: number;
  readonly spare: number;
  readonly x: number;
}

/** What is left for the people, and the figure that decides. */
export interface RoomLeft {
  readonly people: readonly PersonFigure[];
  /** The one with least to spare. */
  readonly matters: PersonFigure | null;
  /** What each layer takes off height and off width, mm. */
  readonly lost: readonly {
    readonly layer: string;
    readonly material: string;
    readonly surface: string;
    readonly height: number;
    readonly width: number;
  }[];
}

/** Shoulders are at 0.82 of the stature; passing wants their width and a hand on each side. */
const SHOULDER_HEIGHT = 0.82;
const PASSING_MM = 150;

const width = (shell: Shell, x: number, z: number): number =>
  halfWidth(shell, 'left', x, z) + halfWidth(shell, 'right', x, z);

interface Lying {
  readonly there: number;
  readonly x: number;
  readonly z: number;
}

/** How far it is clear across on a sleeper's own strip of a bed, between arches too: the figure the bed's check uses where nothing stands there. */
function lyingOn(bed: LyingPlace, person: Person, shell: Shell, arches: readonly ArchShape[]): Lying {
  const [x0, x1] = strip(bed, bed.sleepers.indexOf(person.id));
  const z = shell.floor + bed.unit.body.to;
  const room = { inner: shell, arches, stands: [] };
  return { there: clearOver(room, x0, x1, z, z + bed.mattress), x: (x0 + x1) / 2, z };
}

/** Without a bed: the least width at the height at which beds are usually built. */
function lyingAnywhere(shell: Shell): Lying {
  const z = shell.floor + BED_HEIGHT_MM;
  return spread(shell.start, shell.length, 17)
    .map((x) => ({ x, z, there: width(shell, x, z) }))
    .reduce((worst, next) => (next.there < worst.there ? next : worst));
}

/**
 * Height and width that are left for each person: standing where the roof is lowest along the way, lying across at the
 * height of their bed (or 800 up), and at the shoulders.
 */
export function roomLeft(
  people: Project['people'],
  beds: readonly LyingPlace[],
  bare: { readonly shell: Shell; readonly room: RoomFigures },
  inner: { readonly shell: Shell; readonly room: RoomFigures },
  depths: BuildUpDepths,
  own: Readonly<Record<string, OwnFigures>>,
  arches: readonly ArchShape[],
): RoomLeft {
  // as the layout will be judged
  const [overHead, overLying] = [figureOf(standingRule, 'good', own), figureOf(bedLengthRule, 'good', own)];
  const figures = people.flatMap((person): PersonFigure[] => {
    const bed = beds.find((place) => place.sleepers.includes(person.id));
    const lie = bed ? lyingOn(bed, person, inner.shell, arches) : lyingAnywhere(inner.shell);
    const shoulder = SHOULDER_HEIGHT * person.stature;
    const shoulders = spread(inner.shell.start, inner.shell.length, 17)
      .map((x) => ({ x, there: width(inner.shell, x, inner.shell.floor + shoulder) }))
      .reduce((worst, next) => (next.there < worst.there ? next : worst));
    const { standing } = inner.room;
    const row = (
      what: PersonFigure['what'],
      there: number,
      before: number,
      wants: number,
      x: number,
    ): PersonFigure => ({
      person,
      what,
      there,
      bare: before,
      wants,
      spare: there - wants,
      x,
    });
    return [
      row('standing', standing.value, roofHeight(bare.shell, standing.x, 0), person.stature + overHead, standing.x),
      row('lying', lie.there, width(bare.shell, lie.x, lie.z), person.stature + overLying, lie.x),
      row(
        'shoulders',
        shoulders.there,
        width(bare.shell, shoulders.x, inner.shell.floor + shoulder),
        (person.shoulderWidth ?? SHOULDERS * person.stature) + PASSING_MM,
        shoulders.x,
      ),
    ];
  });
  const lost = (['floor', 'ceiling', 'left', 'right'] as const).flatMap((surface) =>
    depths[surface].layers
      .filter(({ takes }) => takes > 0)
      .map(({ layer, material, takes }) => ({
        layer: layer.id,
        material: material?.name ?? layer.material,
        surface,
        height: surface === 'floor' || surface === 'ceiling' ? takes : 0,
        width: surface === 'left' || surface === 'right' ? takes : 0,
      })),
  );
  return {
    people: figures,
    matters: figures.reduce<PersonFigure | null>(
      (least, next) => (least && least.spare <= next.spare ? least : next),
      null,
    ),
    lost,
  };
}
