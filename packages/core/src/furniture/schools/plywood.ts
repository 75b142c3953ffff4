import type { PriceBook } from '../../document/schema.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { glueAlong, GLUE, screwsAlong } from '../../parts/joint.js';
import { layFlat } from '../../parts/lay-flat.js';
import type { Part, PartEdge } from '../../parts/part.js';
import { bevelOf } from '../../parts/scribe.js';
import { pickFastener } from '../../rules/fasteners.js';
import { message, mm } from '../../words/message.js';
import type { Hardware, Joint, School } from '../school.js';
import {
  boardBox,
  type Board,
  type BoardEdge,
  type Contact,
  type FurnitureProblem,
  type Skeleton,
} from '../skeleton.js';

function edgeOf(edge: BoardEdge, board: Board, point: ReturnType<typeof layFlat>['point']): PartEdge {
  // leans are told from the drawn face into the thickness
  const leans = edge.leans.map((lean) => -board.good * lean + 0);
  return {
    kind: edge.kind,
    at: edge.at,
    trueLine: edge.line.map(point),
    allowance: edge.allowance,
    largestRemoval: edge.most,
    ...(edge.leans.length > 0 ? bevelOf(leans, board.thickness) : { bevel: { least: 0, most: 0 }, squareCut: true }),
  };
}

function partsOf(unit: Unit, { boards, contacts }: Skeleton, book: PriceBook): Part[] {
  const counts = new Map<string, number>();
  const full = (name: string): string => `${unit.id}.${name}`;
  return boards.map((board): Part => {
    const number = (counts.get(board.role) ?? 0) + 1;
    counts.set(board.role, number);
    const flat = layFlat(board);
    return {
      id: full(board.name),
      role: board.role,
      number,
      unit: unit.id,
      material: board.material,
      thickness: board.thickness,
      outline: flat.outline,
      grain: materialOf(book, board.material)?.grain ?? false,
      edges: board.edges.map((edge) => edgeOf(edge, board, flat.point)),
      touches: contacts.flatMap(({ a, b }) => (a === board.name ? [full(b)] : b === board.name ? [full(a)] : [])),
      place: flat.place,
    };
  });
}

/** How far a screw can go into a board's edge: its extent along the other board's normal, mm. */
function depthInto(edge: Board, face: Board): number {
  const box = boardBox(edge);
  const i = face.normal === 'x' ? 0 : face.normal === 'y' ? 1 : 2;
  return box.high[i] - box.low[i];
}

function jointsOf(
  unit: Unit,
  skeleton: Skeleton,
  book: PriceBook,
): { readonly joints: Joint[]; readonly problems: FurnitureProblem[] } {
  const problems: FurnitureProblem[] = [];
  const find = (name: string): Board | undefined => skeleton.boards.find((board) => board.name === name);
  const joints = skeleton.contacts.flatMap((contact: Contact): Joint[] => {
    if (contact.kind !== 'butt' && contact.kind !== 'face') return [];
    const [a, b] = [find(contact.a), find(contact.b)];
    if (!a || !b) return [];
    // two faces are screwed through the thinner board
    const [through, into] = contact.kind === 'face' && b.thickness < a.thickness ? [b, a] : [a, b];
    const picked = pickFastener(
      book,
      {
        passed: through.thickness,
        gap: 0,
        into: 'wood',
        depth: contact.kind === 'face' ? into.thickness : depthInto(into, through),
      },
      contact.kind === 'face' ? null : into.thickness,
    );
    // two faces that no screw holds without coming out are glued and clamped
    const gluedAlone = picked !== null && picked.item === null && contact.kind === 'face' && !skeleton.comesApart;
    if (!picked?.item && !gluedAlone)
      problems.push({
        place: `${unit.id}.${through.name}`,
        said: picked?.splits
          ? message('furniture.thinEdge', { unit: unit.name, thickness: mm(into.thickness) })
          : picked && picked.thinner !== null
            ? message('furniture.thickScrew', {
                unit: unit.name,
                least: mm(picked.least),
                diameter: mm(picked.thinner),
                edge: mm(into.thickness),
              })
            : picked
              ? message('furniture.noScrew', {
                  unit: unit.name,
                  thickness: mm(through.thickness),
                  least: mm(picked.least),
                })
              : message('furniture.noScrews', { unit: unit.name }),
      });
    return [
      {
        a: `${unit.id}.${through.name}`,
        b: `${unit.id}.${into.name}`,
        how: gluedAlone ? 'glued' : skeleton.comesApart ? 'screwed' : 'glued-and-screwed',
        length: contact.length,
        screws: gluedAlone ? 0 : screwsAlong(contact.length),
        fastener: picked?.item?.id ?? null,
      },
    ];
  });
  // one line for each thickness, not one for each joint
  const told = new Map(problems.map((problem) => [JSON.stringify(problem.said), problem]));
  return { joints, problems: [...told.values()] };
}

function hardwareOf(unit: Unit, joints: readonly Joint[]): Hardware[] {
  const screws = new Map<string, number>();
  for (const { fastener, screws: count } of joints)
    if (fastener !== null) screws.set(fastener, (screws.get(fastener) ?? 0) + count);
  const glued = joints.filter(({ how }) => how !== 'screwed').reduce((sum, joint) => sum + joint.length, 0);
  return [
    ...[...screws].map(([item, amount]): Hardware => ({ item, amount, for: unit.id })),
    ...(glued > 0 ? [{ item: GLUE, amount: glueAlong(glued), for: unit.id }] : []),
  ];
}

/** Boards carry: each board of the skeleton is one part, butted, screwed, and glued where it does not come apart again. */
export const plywood: School = {
  id: 'plywood',
  words: { name: 'Plywood carcass' },
  make: (unit, skeleton, book) => {
    const { joints, problems } = jointsOf(unit, skeleton, book);
    return { parts: partsOf(unit, skeleton, book), joints, hardware: hardwareOf(unit, joints), problems };
  },
};
