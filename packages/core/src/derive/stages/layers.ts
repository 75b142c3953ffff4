import { coveredAreas } from '../../layers/areas.js';
import { buildUpDepths, insetsOf } from '../../layers/buildup.js';
import { faceFixings, revealsOf } from '../../layers/knock-on.js';
import { heatLoss } from '../../layers/warmth.js';
import { layerWarnings, pocketsOf } from '../../layers/warnings.js';
import { roomLeft } from '../../layout/room-left.js';
import { cavitiesOf } from '../../lining/surface/cavities.js';
import { bookAsBought, buildUpsAsBought } from '../../materials/as-bought.js';
import { innerShell, type Insets } from '../../shell/inner.js';
import { ribDepths, ribShares } from '../../shell/ribs.js';
import { roomFigures } from '../../shell/room.js';
import type { DeriveKit } from '../kit.js';
import { steady } from '../stage.js';
import type { Stages } from './stages.js';

type From =
  | 'bookGiven'
  | 'buildUpsGiven'
  | 'measured'
  | 'book'
  | 'buildUps'
  | 'geometry'
  | 'making'
  | 'people'
  | 'vehicle'
  | 'figures'
  | 'linings'
  | 'ribs'
  | 'shell'
  | 'inner'
  | 'bareRoom'
  | 'room'
  | 'arches'
  | 'depths'
  | 'insets'
  | 'lining'
  | 'areas'
  | 'lying'
  | 'fixings'
  | 'pockets';
type Makes =
  | 'book'
  | 'buildUps'
  | 'depths'
  | 'insets'
  | 'lining'
  | 'inner'
  | 'room'
  | 'areas'
  | 'left'
  | 'warmth'
  | 'reveals'
  | 'fixings'
  | 'floorFace'
  | 'pockets'
  | 'warnings'
  | 'cavities';

const sameInsets = (a: Insets, b: Insets): boolean =>
  (Object.keys(a) as (keyof Insets)[]).every((side) => a[side] === b[side]);

/** From the layers of every surface to the room that is left, and what they do to warmth, openings and screws. */
export function layerStages({ surfaces }: DeriveKit): Stages<From, Makes> {
  return {
    book: ({ bookGiven, measured }) => bookAsBought(bookGiven, measured),
    buildUps: ({ buildUpsGiven, bookGiven, measured }) => buildUpsAsBought(buildUpsGiven, bookGiven, measured),
    depths: ({ buildUps, ribs, book }) => buildUpDepths(buildUps, ribDepths(ribs), book, surfaces),
    // the same insets by other layers leave the same room
    insets: steady(({ depths }) => insetsOf(depths), sameInsets),
    lining: ({ shell, insets }) => {
      const made = shell && innerShell(shell, insets);
      return { shell: made, room: made && roomFigures(made) };
    },
    inner: ({ lining }) => lining.shell,
    room: ({ lining }) => lining.room,
    areas: ({ room, bareRoom, inner, shell, arches, geometry }) => {
      const [figures, within] = [room ?? bareRoom, inner ?? shell];
      return figures && within && coveredAreas(figures, within, arches, geometry, surfaces);
    },
    left: ({ people, lying, shell, bareRoom, inner, room, depths, figures, arches }) =>
      shell && bareRoom && inner && room
        ? roomLeft(people, lying, { shell, room: bareRoom }, { shell: inner, room }, depths, figures, arches)
        : null,
    warmth: ({ areas, depths, ribs, shell, making, vehicle }) =>
      areas &&
      heatLoss(depths, areas, making.climate, ribShares(ribs, shell), making.floorBattens.spacing, vehicle, surfaces),
    reveals: ({ geometry, depths }) => revealsOf(geometry, depths),
    fixings: ({ depths, book, linings }) =>
      faceFixings(depths, book, (surface) => linings[surface]?.removable ?? false, surfaces),
    floorFace: ({ fixings }) => fixings.find((face) => face.surface === 'floor') ?? null,
    pockets: ({ geometry }) => pocketsOf(geometry),
    warnings: ({ depths, making, pockets }) => layerWarnings(depths, making, pockets),
    cavities: ({ shell, geometry, ribs, arches }) => (shell ? cavitiesOf(geometry, shell, ribs, arches) : []),
  };
}
