import { z } from 'zod';
import { nothingButProblems } from '../carcass.js';
import { bodyField, faultsBy, freeField, fromField, type Family } from '../family.js';

/** Something that is not decided yet: the room it will take, and a name. Nothing is cut for it. */
export const plainBox: Family = {
  id: 'plain-box',
  words: {
    name: 'Not decided yet',
    add: 'Box with a name',
    start: 'Box',
    noun: 'box',
    fields: { y: 'Left edge from the centre line', width: 'Across', from: 'Stands at' },
    roles: {},
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    freeField('y', 'y'),
    freeField('width', 'width'),
    fromField,
    bodyField('height', 'to'),
  ],
  faults: faultsBy({ stands: ['free'], materials: [], options: z.strictObject({}), cuts: [] }),
  start: ({ id, name, room }) => ({
    id,
    family: 'plain-box',
    name,
    body: { stands: 'free', x: Math.round(room.length / 2), length: 500, y: -250, width: 500, from: 0, to: 500 },
    meets: { foot: { how: 'square' } },
    division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: {},
    options: {},
  }),
  skeleton: () => nothingButProblems([]),
  rules: [],
};
