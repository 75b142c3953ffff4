import {
  materialOf,
  type BaseCupboard,
  type PlatformBed,
  type PriceBook,
  type Project,
  type Shell,
} from '@nestplank/core';

/** A sheet of about this thickness from the price book. */
function sheetAbout(book: PriceBook, thickness: number): string {
  const sheets = book.items.filter((item) => item.stocks.length > 0 && item.group === 'sheet');
  return (
    [...sheets].sort((a, b) => Math.abs(a.thickness - thickness) - Math.abs(b.thickness - thickness))[0]?.id ??
    book.items[0]?.id ??
    'sheet'
  );
}

function freeId(project: Project, stem: string): { readonly id: string; readonly number: number } {
  let number = 1;
  const id = (): string => (number === 1 ? stem : `${stem}-${number}`);
  while (project.units.some((unit) => unit.id === id())) number += 1;
  return { id: id(), number };
}

/** A bed across the rear for everybody who is known, on a height that leaves a hold under it. */
export function newBed(project: Project, room: Shell, book: PriceBook, name: string): PlatformBed {
  const { id, number } = freeId(project, 'bed');
  const length = Math.min(project.people.length === 1 ? 800 : 1350, room.length);
  return {
    kind: 'platform-bed',
    id,
    name: number === 1 ? name : `${name} ${number}`,
    x: Math.round(room.length - length),
    length: Math.round(length),
    height: 700,
    mattress: 100,
    sleepers: project.people.slice(0, 2).map((person) => person.id),
    board: sheetAbout(book, 12),
    support: sheetAbout(book, 15),
    boardWidth: 620,
    span: 650,
    scribe: 20,
  };
}

/** A cupboard against a wall where the first free stretch of floor is. */
export function newCupboard(project: Project, room: Shell, book: PriceBook, name: string): BaseCupboard {
  const { id, number } = freeId(project, 'cupboard');
  const taken = (side: 'left' | 'right', from: number, to: number): boolean =>
    project.units.some(
      (unit) => (unit.kind === 'platform-bed' || unit.side === side) && unit.x < to && unit.x + unit.length > from,
    );
  const length = Math.min(900, Math.round(room.length / 2));
  const places = (['left', 'right'] as const).flatMap((side) =>
    Array.from({ length: Math.max(1, Math.floor((room.length - length) / 50)) }, (_, i) => ({ side, x: i * 50 })),
  );
  const free = places.find(({ side, x }) => !taken(side, x, x + length)) ?? { side: 'left' as const, x: 0 };
  return {
    kind: 'base-cupboard',
    id,
    name: number === 1 ? name : `${name} ${number}`,
    side: free.side,
    x: free.x,
    length,
    front: 370,
    height: 900,
    toeKick: 90,
    shelves: 1,
    doors: 2,
    carcass: sheetAbout(book, 15),
    facing: sheetAbout(book, 15),
    top: materialOf(book, 'birch-18') ? 'birch-18' : sheetAbout(book, 18),
    overhang: 20,
    scribe: 20,
  };
}
