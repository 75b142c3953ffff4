import { z } from 'zod';
import {
  gapSchema,
  idSchema,
  nameSchema,
  pitchOrNoneSchema,
  pitchSchema,
  positionSchema,
  sizeSchema,
  thicknessSchema,
} from './schema-base.js';

/** What is lined with panels, strips or boards. */
export const linedSchema = z.enum(['left', 'right', 'ceiling', 'front', 'rear']);
/** How a surface is lined: what is nailed, screwed or clipped to the battens last. */
export const liningSchema = z.strictObject({
  /** Large bent sheets, strips ripped from sheets, or boards bought by the length. */
  school: z.enum(['sheets', 'strips', 'boards']),
  /** Places of upright seams that were moved by hand, mm along the vehicle; null while they are found. */
  seams: z.array(positionSchema).max(40).nullable(),
  /** Width of a strip that is ripped, mm. Boards have the width they are sold in. */
  strip: pitchSchema,
  /** Gap between neighbouring pieces, and at every edge of the surface, mm. */
  gap: gapSchema,
  edge: gapSchema,
  /** No piece is narrower than this at either end, mm. */
  sliver: sizeSchema,
  /** How much smaller than the frame a window is cut out, to be trimmed flush after, mm. */
  undersize: gapSchema,
  /** Grooves sawn into sheets so that they look like boards; none while they have no spacing, mm. */
  groove: z.strictObject({
    spacing: pitchOrNoneSchema,
    depth: gapSchema,
    width: gapSchema,
    direction: z.enum(['level', 'upright']),
  }),
  /** Left on where it meets another surface, to be scribed to it, mm. */
  scribe: gapSchema,
  /** Screwed in sight so that it comes off again, or fixed for good. */
  removable: z.boolean(),
  /** Height above the finished floor at which a joint of boards or strips, or a level groove, lies; balanced between floor and roof while none is given, mm. */
  datum: gapSchema.nullable().optional(),
  /** Pieces that come off again although the surface as a whole does not, by their part. */
  comesOff: z.array(z.string().min(1).max(80)).max(60).optional(),
  /** Inside corners of notches get this radius, as a drill leaves it; square while there is none, mm. */
  notch: gapSchema.optional(),
  /** Joints are covered with strips of the trim's profile. */
  covered: z.boolean().optional(),
});
/** Boxes that are made for windows and over arches. */
export const boxesSchema = z.strictObject({
  /** Sheet the boards of a window box and the panels of an arch box are cut from. */
  board: idSchema,
  /** Profile the front trim is mitred from. */
  trim: idSchema,
  /** Arches that get a box, by their ids. */
  arches: z.array(idSchema).max(24),
  /** Left on boards of boxes, headers and corners where they meet a window, a wall or a ceiling, to be scribed, mm. */
  scribe: gapSchema.optional(),
  /** Kept between an arch and its box for what is wrapped round it, mm. */
  clearance: gapSchema,
  /** What an arch box has to bear: a foot stepping on it, somebody sitting, or things stored on it. */
  load: z.enum(['step', 'seat', 'store']),
  /** What is stored on it, kg. */
  stored: z.number().min(0).max(2000),
  /** Windows that get a curtain or blind on a track before them, by their ids. */
  curtains: z.array(idSchema).max(60).optional(),
  /** Openings whose sides lean that get an upright box all the same, by their ids. */
  upright: z.array(idSchema).max(60).optional(),
  /** Curtains on a rail across the body: where along it, and how high above the finished floor, mm. */
  across: z
    .array(z.strictObject({ id: idSchema, name: nameSchema, x: positionSchema, height: sizeSchema }))
    .max(12)
    .optional(),
  /** The top of an arch box is screwed down, or lifts off to reach what is under it. */
  access: z.enum(['fixed', 'lid']),
});
/** How the panels of doors are cut. */
export const doorLiningSchema = z.strictObject({
  /** Kept back from the door's edge all round, so that the panel clears seal and frame, mm. */
  inset: gapSchema,
});
/** A place kept for a high cupboard that comes later: between wall and ceiling. */
export const reservedSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  side: z.enum(['left', 'right']),
  x: positionSchema,
  length: sizeSchema,
  /** Into the room from the wall, and down from the ceiling, mm. */
  depth: sizeSchema,
  height: sizeSchema,
  /** The ceiling stops in front of it, or runs through behind it. */
  ceiling: z.enum(['stops', 'through']),
});
/** A piece that is sawn on its back and bent round a corner, such as a door pillar or a header. */
export const cornerSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  surface: linedSchema,
  board: idSchema,
  /** Along the corner, and from the corner to both ends, measured on the outside, mm. */
  height: sizeSchema,
  legs: z.tuple([sizeSchema, sizeSchema]),
  /** Of the outer face. */
  radius: sizeSchema,
  angle: z.number().min(1).max(180),
  /** What is left standing behind the saw cuts, mm. */
  skin: thicknessSchema,
  /** The grain of the face runs round the bend, not along the corner. */
  grainRound: z.boolean(),
});
/** A sloped box between wall and ceiling over what stands in the way there, such as a door's rail. */
export const headerSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  side: z.enum(['left', 'right']),
  x: positionSchema,
  length: sizeSchema,
  /** Corners of what is in the way: down from the ceiling and in from the wall, mm. */
  past: z
    .array(z.strictObject({ down: gapSchema, in: gapSchema }))
    .min(1)
    .max(12),
  /** Kept free round it, mm. */
  clearance: gapSchema,
});
/** How the floor is laid. */
export const floorChoiceSchema = z.strictObject({
  /** Which way the board's pieces run; null for the cheapest. */
  direction: z.enum(['across', 'along']).nullable(),
  /** The board cut into equal pieces, for the cheapest sheets, or into the fewest pieces; equal ones while nothing is said. */
  cut: z.enum(['equal', 'cheapest', 'fewest']).optional(),
  /** The finish everywhere, or only where no unit stands. */
  finish: z.enum(['everywhere', 'seen']),
  /** How far the board is kept back at the side doors, mm, but where a unit stands in the door: there it is carried out. */
  keepBack: gapSchema,
  /** The board glued and screwed; glued, with screws only where furniture hides them; or laid loose and held by furniture. */
  fixing: z.enum(['screwed', 'glued', 'loose']),
  /** Tiles in a grid, or each row begun with a half. */
  tiles: z.enum(['grid', 'half']),
  /** Joint between tiles, mm. */
  joint: gapSchema,
  /** The floor's edge in every door is trimmed with the profile of the window boxes. */
  doorTrims: z.boolean().optional(),
  /** What a bare board is coated with as the finished floor, and how often; 0 coats for none. */
  coat: idSchema,
  coats: z.int().min(0).max(8),
});
/** A lamp, outlet or cable that a lining is cut for. */
export const fittingSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['lamp', 'outlet', 'cable', 'duct']),
  surface: linedSchema,
  /** Along the vehicle, and up the wall from the bare floor or right of the centre line, mm. */
  x: positionSchema,
  along: positionSchema,
  diameter: sizeSchema,
  /** Its cable is connected at both ends before the lining goes on: it needs a slot, not a hole. */
  wired: z.boolean(),
  /** Its cable is pulled and tried. */
  pulled: z.boolean().optional(),
});
/** A lid in the floor over what must stay within reach. */
export const floorHatchSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** Its middle, mm. */
  x: positionSchema,
  y: positionSchema,
  length: sizeSchema,
  width: sizeSchema,
  lift: z.enum(['finger-hole', 'ring']),
});
/** What a sheet or board bought really measures, mm. */
export const measuredSchema = z.strictObject({
  material: idSchema,
  thickness: thicknessSchema,
  /** Of timber and boards, where it was measured too. */
  width: z.number().min(1).max(3000).optional(),
  /** Its sheets came bowed. */
  bowed: z.boolean().optional(),
});
/** One pass of scribing: gaps read with the part held in its place, mm, and what came off. */
export const scribeSchema = z.strictObject({
  id: idSchema,
  part: z.string().min(1).max(80),
  edge: z.enum(['left', 'right', 'back', 'front']),
  gaps: z.array(gapSchema).min(2).max(60),
  at: z.iso.datetime(),
});
/** Something that was used as a pattern, and the parts made from it with the shape they had then. */
export const patternSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  source: z.string().trim().max(200),
  revision: z.int().min(1).max(999),
  mirrored: z.boolean(),
  made: z.array(z.strictObject({ part: z.string().min(1).max(80), shape: z.string().max(64) })).max(100),
});

export type Lined = z.infer<typeof linedSchema>;
export type DoorLining = z.infer<typeof doorLiningSchema>;
export type Reserved = z.infer<typeof reservedSchema>;
export type Corner = z.infer<typeof cornerSchema>;
export type Header = z.infer<typeof headerSchema>;
export type BoxChoice = z.infer<typeof boxesSchema>;
export type FloorChoice = z.infer<typeof floorChoiceSchema>;
export type LiningChoice = z.infer<typeof liningSchema>;
export type Fitting = z.infer<typeof fittingSchema>;
export type FloorHatch = z.infer<typeof floorHatchSchema>;
export type MeasuredMaterial = z.infer<typeof measuredSchema>;
export type ScribePass = z.infer<typeof scribeSchema>;
export type Pattern = z.infer<typeof patternSchema>;
