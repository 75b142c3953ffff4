import { z } from 'zod';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  freeField,
  fromField,
  thingField,
  thingOption,
  type Family,
} from '../family.js';

/** An appliance or another thing with a data sheet that stands by itself. */
export const thingAlone: Family = {
  id: 'thing-alone',
  words: {
    name: 'Thing that stands alone',
    add: 'Thing by itself',
    start: 'Thing',
    noun: 'thing',
    fields: {
      thing: 'Data sheet',
      looks: 'Its front looks',
      y: 'Left edge from the centre line',
      width: 'Across',
      from: 'Stands at',
    },
    roles: {},
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    thingField,
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    freeField('y', 'y'),
    freeField('width', 'width'),
    fromField,
    bodyField('height', 'to'),
    choiceField('looks', ['left', 'right', 'front', 'rear']),
  ],
  faults: faultsBy({
    stands: ['free'],
    materials: [],
    options: z.strictObject({ thing: z.string().max(60), looks: z.enum(['left', 'right', 'front', 'rear']) }),
    cuts: [],
  }),
  start: ({ id, name, room }) => ({
    id,
    family: 'thing-alone',
    name,
    body: { stands: 'free', x: Math.round(room.length / 2), length: 400, y: -200, width: 400, from: 0, to: 400 },
    meets: { foot: { how: 'square' } },
    division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: {},
    options: { thing: '', looks: 'rear' },
  }),
  // it is bought, not made
  skeleton: () => nothingButProblems([]),
  is: thingOption,
  rules: [],
};
