import type { Family } from '../family.js';
import { baseRun } from './base-run.js';
import { bedAlong } from './bed-along.js';
import { bedOnRails } from './bed-on-rails.js';
import { bedPlatform } from './bed-platform.js';
import { boughtCupboard } from './bought-cupboard.js';
import { cornerSeat } from './corner-seat.js';
import { rack } from './rack.js';
import { highCupboard } from './high-cupboard.js';
import { leafTable } from './leaf-table.js';
import { outsideBoard } from './outside-board.js';
import { partition } from './partition.js';
import { plainBox } from './plain-box.js';
import { seat } from './seat.js';
import { slideOutBed } from './slide-out-bed.js';
import { stool } from './stool.js';
import { table } from './table.js';
import { tallCupboard } from './tall-cupboard.js';
import { tiltingBoard } from './tilting-board.js';
import { thingAlone } from './thing-alone.js';
import { washRoom } from './wash-room.js';

/** Every family there is. A new one is a file of its own and a line here. */
export const FAMILIES: readonly Family[] = [
  bedPlatform,
  baseRun,
  highCupboard,
  tallCupboard,
  boughtCupboard,
  rack,
  seat,
  cornerSeat,
  bedAlong,
  bedOnRails,
  slideOutBed,
  tiltingBoard,
  table,
  leafTable,
  outsideBoard,
  partition,
  washRoom,
  stool,
  thingAlone,
  plainBox,
];
