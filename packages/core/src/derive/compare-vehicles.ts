import { ribDepths, type RibMap } from '../shell/ribs.js';
import { datumOf } from '../layout/datum.js';
import { valueAt } from '../document/address.js';
import { halfWidth } from '../shell/shell.js';
import type { DerivedShape } from './derived.js';
import type { Project } from '../document/schema.js';

/** Net measures of one vehicle, for a choice between several. mm; null where it was not measured. */
export interface VehicleMeasures {
  readonly id: string;
  readonly name: string;
  readonly kind: Project['vehicle']['kind'];
  readonly model: string;
  readonly units: Project['settings']['units'];
  readonly length: number | null;
  readonly standing: number | null;
  readonly widthAtFloor: number | null;
  readonly widthAtBed: number | null;
  /** The largest departure of a wall from straight, at 700 up. */
  readonly straightness: number | null;
  /** Half-width at 1200 less that at the floor: how much a wall leans in. */
  readonly lean: number | null;
  readonly ribDepth: number | null;
  readonly betweenArches: number | null;
  /** How deep the step at a door is; null where there is none. */
  readonly step: number | null;
  readonly readings: number;
  /** Volume of the room, m3. */
  readonly volume: number | null;
}

/** How far the ribs stand proud where that is least, mm; null while none was read. */
function shallowest(ribs: RibMap): number | null {
  const read = Object.values(ribDepths(ribs)).filter((depth) => depth > 0);
  return read.length > 0 ? Math.min(...read) : null;
}

/** The net measures of a vehicle from what was derived of it. */
export function vehicleMeasures(project: Project, shape: DerivedShape): VehicleMeasures {
  const { room, shell, inner } = shape;
  const walls = shell ? datumOf(project.survey, shell, []).walls.filter((wall) => wall.z === 700) : [];
  const faces = (['left', 'right'] as const).map((side) =>
    Math.min(...shape.arches.filter((a) => a.side === side && a.kind === 'arch').map((a) => a.face)),
  );
  const between = (faces[0] ?? Infinity) + (faces[1] ?? Infinity);
  const steps = project.survey.arches
    .filter((arch) => arch.kind === 'step')
    .flatMap((arch) => valueAt(project.survey, `arch/${arch.id}/height`) ?? []);
  const net = inner ?? shell;
  const middle = net ? net.length / 2 : 0;
  return {
    id: project.id,
    name: project.name,
    kind: project.vehicle.kind,
    model: project.vehicle.model,
    units: project.settings.units,
    length: shell?.length ?? null,
    standing: room?.standing.value ?? null,
    widthAtFloor: room?.widthAtFloor.value ?? null,
    widthAtBed: room?.widthAtBed.value ?? null,
    straightness: walls.length > 0 ? Math.max(...walls.map((wall) => Math.abs(wall.most))) : null,
    lean: net ? halfWidth(net, 'left', middle, 1200) - halfWidth(net, 'left', middle, net.floor) : null,
    ribDepth: shallowest(shape.ribs),
    betweenArches: Number.isFinite(between) ? between : null,
    step: steps.length > 0 ? Math.max(...steps) : null,
    readings: shape.progress.taken,
    volume: room ? (room.areas.floor * room.standing.value) / 1000 : null,
  };
}
