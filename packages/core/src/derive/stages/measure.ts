import { surveyQuality } from '../../measure/next-reading.js';
import { closuresOf } from '../../measure/closure.js';
import { outliersOf } from '../../measure/quality.js';
import { surfaceModel } from '../../measure/surface-model.js';
import { stillMissing } from '../../measure/look-round.js';
import { progressOf, walkOf } from '../../measure/walk.js';
import { archesOf } from '../../shell/arch.js';
import { buildShell } from '../../shell/build.js';
import { ribMap } from '../../shell/ribs.js';
import { roomFigures } from '../../shell/room.js';
import { createAsked, createGeometry } from '../slices.js';
import type { Stages } from './stages.js';

type From = 'survey' | 'people' | 'geometry' | 'asked' | 'model' | 'built' | 'found' | 'shell' | 'shadows';
type Makes =
  | 'geometry'
  | 'asked'
  | 'model'
  | 'progress'
  | 'walk'
  | 'closures'
  | 'outliers'
  | 'built'
  | 'shell'
  | 'assumed'
  | 'bareRoom'
  | 'found'
  | 'arches'
  | 'ribs'
  | 'missing'
  | 'quality';

/** From readings to the bare shell, what stands in it, and how well it is known. */
export function measureStages(): Stages<From, Makes> {
  const geometryOf = createGeometry();
  const askedOf = createAsked();
  return {
    geometry: ({ survey }) => geometryOf(survey),
    asked: ({ survey }) => askedOf(survey),
    model: ({ geometry }) => surfaceModel(geometry),
    progress: ({ asked }) => progressOf(asked),
    walk: ({ asked }) => walkOf(asked),
    closures: ({ geometry }) => closuresOf(geometry),
    outliers: ({ geometry, model }) => outliersOf(geometry, model),
    built: ({ geometry, model }) => {
      const result = buildShell(geometry, model);
      return { ...result, room: result.shell && roomFigures(result.shell) };
    },
    shell: ({ built }) => built.shell,
    assumed: ({ built }) => built.assumed,
    bareRoom: ({ built }) => built.room,
    found: ({ geometry, shell }) => archesOf(geometry, shell),
    arches: ({ found }) => found.arches,
    ribs: ({ geometry }) => ribMap(geometry),
    missing: ({ survey, people }) => stillMissing({ survey, people }),
    quality: ({ shell, asked, shadows, model }) => shell && surveyQuality(asked, shadows, shell.length, model),
  };
}
