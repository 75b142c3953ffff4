/** Units in the room: what they come to and what they collide with. */
export { bedBands, type HeightBand } from './bed-band.js';
export { type Snap, snapAcross, snapAlong, type SnapWorld } from './snaps.js';
export { datumOf, settingOut, type WallStraightness } from './datum.js';
export { headroomIn, sitsUp } from './checks/people.js';
export { wayAt } from './checks/room.js';
export { madeBeds } from './cushions.js';
export { type Soft, softIn } from './soft.js';
export { type Berth, berthOf, type LyingPlace } from './lying.js';
export type { PersonFigure } from './room-left.js';
export { ruleNamed, RULES } from './rules.js';
export { offeredIn, type Offered, offersIn } from './gap-offers.js';
export { gapAt, gapsOf } from './gaps.js';
export { stepsBetween } from './modes.js';
export { beginsAt, eyesOf, type Seat, seatsFor, standsHere } from './seen-from.js';
export { decides, type WishStands, wishesStand } from './wishes.js';
export { cardName, floorCards, type FloorOutline, floorOutlines, tapedNow, tapeMoves } from './try-out.js';
export { wattsOf } from './checks/runs.js';
export { LEVER_MM } from './weight.js';
