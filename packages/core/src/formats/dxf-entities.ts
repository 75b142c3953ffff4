/** A group of a DXF file: its code and its value. */
interface Group {
  readonly code: number;
  readonly value: string;
}
/** What an outline can be made of, and the groups of each that say where it runs. */
const DRAWN: Readonly<Record<string, readonly number[]>> = {
  LINE: [10, 20, 30, 11, 21, 31],
  ARC: [10, 20, 30, 40, 50, 51],
  LWPOLYLINE: [90, 70, 10, 20, 42],
  POLYLINE: [70],
  VERTEX: [10, 20, 30, 42, 70],
  SEQEND: [],
};
const VERTEX_COUNT = 90;
const CLOSED = 70;
const FIRST_X = 10;

/** Thrown for a text that is no DXF file. */
export class DxfError extends Error {}

function groupsOf(text: string): Group[] {
  const lines = text.split(/\r\n|\r|\n/);
  const groups: Group[] = [];
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = (lines[i] ?? '').trim();
    if (!/^-?\d+$/.test(code)) {
      if (code === '' && i + 2 >= lines.length) break;
      throw new DxfError(`line ${i + 1} is no group code`);
    }
    groups.push({ code: Number(code), value: lines[i + 1] ?? '' });
  }
  return groups;
}

/** The entities between the beginning and the end of their section, each from its name to the next. */
function entitiesIn(groups: readonly Group[]): Group[][] {
  const named = (at: number, code: number, value: string): boolean =>
    groups[at]?.code === code && groups[at].value.trim() === value;
  const start = groups.findIndex((_, i) => named(i, 0, 'SECTION') && named(i + 1, 2, 'ENTITIES'));
  if (start < 0) throw new DxfError('it has no entities');
  const entities: Group[][] = [];
  for (let i = start + 2; i < groups.length; i += 1) {
    const group = groups[i];
    if (!group) break;
    if (group.code !== 0) entities.at(-1)?.push(group);
    else if (group.value.trim() === 'ENDSEC') return entities;
    else entities.push([group]);
  }
  throw new DxfError('its end is missing');
}

const nameOf = (entity: readonly Group[]): string => entity[0]?.value.trim() ?? '';

/** An entity as it may be read: only what says where it runs; a polyline says no more corners than it has, and says so first. */
function plain(entity: readonly Group[]): readonly Group[] {
  const wanted = DRAWN[nameOf(entity)] ?? [];
  const kept = entity.filter(({ code }, i) => i === 0 || wanted.includes(code));
  if (nameOf(entity) !== 'LWPOLYLINE') return kept;
  const first = kept.findIndex(({ code }) => code === FIRST_X);
  if (first < 0) return [];
  const corners = kept.filter(({ code }) => code === FIRST_X).length;
  const closed = kept.find(({ code }) => code === CLOSED);
  const name = kept[0];
  return [
    ...(name ? [name] : []),
    { code: VERTEX_COUNT, value: String(corners) },
    ...(closed ? [closed] : []),
    ...kept.slice(first).filter(({ code }) => code !== VERTEX_COUNT && code !== CLOSED),
  ];
}

/**
 * The lines and arcs of a DXF file as a file of their own. Everything else of it is left out: a general reader waits for
 * what a damaged table, block or polyline does not say.
 * @throws DxfError with the reason
 */
export function drawnEntities(text: string): string {
  const entities = entitiesIn(groupsOf(text));
  const kept: (readonly Group[])[] = [];
  for (let i = 0; i < entities.length; i += 1) {
    const entity = entities[i] ?? [];
    if (!['LINE', 'ARC', 'LWPOLYLINE', 'POLYLINE'].includes(nameOf(entity))) continue;
    if (nameOf(entity) !== 'POLYLINE') {
      kept.push(plain(entity));
      continue;
    }
    let end = i + 1;
    while (nameOf(entities[end] ?? []) === 'VERTEX') end += 1;
    if (nameOf(entities[end] ?? []) !== 'SEQEND') throw new DxfError('a polyline has no end');
    kept.push(...entities.slice(i, end + 1).map(plain));
    i = end;
  }
  const groups = kept.flat().flatMap(({ code, value }) => [String(code), value]);
  return ['0', 'SECTION', '2', 'ENTITIES', ...groups, '0', 'ENDSEC', '0', 'EOF', ''].join('\n');
}
