import type { MaterialPlan } from '../cutting/plan/cutting-room.js';
import type { Shopping } from '../costing/shopping.js';
import type { Part } from '../parts/part.js';
import type { CoveredAreas } from '../layers/areas.js';
import type { LayerWarning } from '../layers/warnings.js';
import type { RibMap } from '../shell/ribs.js';
import type { CavityGroup } from '../lining/surface/cavities.js';
import type { BuildUpDepths } from '../layers/buildup.js';
import type { FaceFixing, Reveal } from '../layers/knock-on.js';
import type { RoomLeft } from '../layout/room-left.js';
import type { HeatLoss } from '../layers/warmth.js';
import type { Linings } from '../lining/linings.js';
import type { LinedFloor } from '../lining/floor/floor.js';
import type { FloorBattens } from '../lining/floor/floor-battens.js';
import type { Check } from '../furniture/scene.js';
import type { MadeUnit } from '../furniture/make.js';
import type { RunBought } from '../furniture/runs-bought.js';
import type { RunsMade } from '../furniture/runs.js';
import type { LyingPlace } from '../layout/lying.js';
import type { Subfloor } from '../lining/floor/subfloor.js';
import type { ModeFigures } from '../layout/modes.js';
import type { WeightFigures } from '../layout/weight.js';
import type { MassFigures } from '../mass/mass.js';
import type { Closure } from '../measure/closure.js';
import type { Outlier } from '../measure/quality.js';
import type { SurveyQuality } from '../measure/next-reading.js';
import type { Missing } from '../measure/look-round.js';
import type { Progress } from '../measure/walk.js';
import type { ArchShape } from '../shell/arch.js';
import type { RoomFigures } from '../shell/room.js';
import type { Shell } from '../shell/shell.js';
import type { DoneTask } from '../work/progress.js';
import type { Schedule } from '../work/schedule.js';
import type { Message } from '../words/message.js';

/** A problem with its place: an address of the survey, a surface, a unit or a part. */
export interface Problem {
  readonly said: Message;
  readonly place: string;
  readonly stage: 'measure' | 'layers' | 'layout' | 'build' | 'cut';
}

/** Everything up to the parts: what a drag recomputes. */
export interface DerivedShape {
  readonly progress: Progress;
  readonly walk: readonly string[];
  readonly closures: readonly Closure[];
  readonly outliers: readonly Outlier[];
  readonly shell: Shell | null;
  readonly assumed: readonly Message[];
  readonly arches: readonly ArchShape[];
  readonly ribs: RibMap;
  readonly depths: BuildUpDepths;
  readonly inner: Shell | null;
  readonly bareRoom: RoomFigures | null;
  readonly room: RoomFigures | null;
  readonly checks: readonly Check[];
  readonly subfloor: Subfloor | null;
  /** Null while no floor layer is laid as battens. */
  readonly floorBattens: FloorBattens | null;
  /** Board, noggins, hatches, screws and finish of the floor. */
  readonly floor: LinedFloor;
  /** Walls and ceiling cut into pieces, window boxes, arch boxes. */
  readonly lined: Linings;
  /** Each unit with its boards, joints, hardware and what is wrong with it. */
  readonly made: readonly MadeUnit[];
  /** Cables, pipes and ducts where they lie, with the holes they take. */
  readonly runs: RunsMade;
  /** What each run is bought as, and its metres. */
  readonly runsBought: readonly RunBought[];
  /** Every place to lie, and who lies there. */
  readonly lying: readonly LyingPlace[];
  readonly parts: readonly Part[];
  readonly problems: readonly Problem[];
  /** What cannot be known because nobody has looked or measured. */
  readonly missing: readonly Missing[];
}

/** Everything that follows from a project and a price book. Plain data. */
export interface Derived extends DerivedShape {
  /** How good the survey is where it matters, and the next reading that would help; null before there is a shell. */
  readonly quality: SurveyQuality | null;
  readonly areas: CoveredAreas | null;
  readonly left: RoomLeft | null;
  readonly warmth: HeatLoss | null;
  readonly reveals: readonly Reveal[];
  readonly fixings: readonly FaceFixing[];
  readonly warnings: readonly LayerWarning[];
  readonly cavities: readonly CavityGroup[];
  readonly plans: readonly MaterialPlan[];
  readonly shopping: Shopping;
  readonly mass: MassFigures;
  readonly weight: WeightFigures;
  /** What each mode leaves free. */
  readonly modes: readonly ModeFigures[];
  readonly schedule: Schedule;
  /** What is ticked, newest first. */
  readonly done: readonly DoneTask[];
}
