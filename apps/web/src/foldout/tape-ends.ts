import { parseAddress, valueAt, type Survey } from '@nestplank/core/document';
import { boundsOf } from '@nestplank/core/measure';
import type { Point } from '@nestplank/core/numeric';
import { archFace, halfWidth, placedOpenings, roofHeight, type ArchShape } from '@nestplank/core/shell';
import { onWall, screenX, screenY, type FoldOutFrame } from './geometry.js';

/** Where the two ends of the tape go on the fold-out, the zero first. */
export type TapeEnds = readonly [Point, Point];

interface Where {
  readonly frame: FoldOutFrame;
  readonly survey: Survey;
  readonly arches: readonly ArchShape[];
}

const floorAt = (frame: FoldOutFrame, x: number, y: number): Point => [screenX(frame, y), screenY(frame, x)];

function archEnds({ frame, arches }: Where, id: string, what: string): TapeEnds | null {
  const arch = arches.find((candidate) => candidate.id === id);
  if (!arch) return null;
  const sign = arch.side === 'left' ? -1 : 1;
  const middle = (arch.from + arch.to) / 2;
  const at = (x: number, y: number): Point => floorAt(frame, x, sign * y);
  if (what === 'from' || what === 'to') return [at(0, arch.face), at(what === 'from' ? arch.from : arch.to, arch.face)];
  if (what === 'height' || what === 'bottom')
    return [onWall(frame, arch.side, middle, 0), onWall(frame, arch.side, middle, Math.max(arch.height, 60))];
  const reach =
    what === 'far' ? (arch.far ?? arch.face) : archFace(arch, what === 'top-face' ? arch.height : arch.bottom);
  return [at(middle, 0), at(middle, reach)];
}

function openingEnds({ frame, survey }: Where, id: string, what: string): TapeEnds | null {
  const placed = placedOpenings(survey).find(({ opening }) => opening.id === id);
  const side = placed?.opening.surface;
  if (!placed || (side !== 'left' && side !== 'right')) return null;
  const { from, to, fromHead, toHead, sill, head } = placed;
  const top = Math.min(head, roofHeight(frame.shell, (from + to) / 2, 0));
  const at = (x: number, z: number): Point => onWall(frame, side, x, z);
  if (what === 'from' || what === 'to') return [at(0, sill), at(what === 'from' ? from : to, sill)];
  if (what === 'from-head' || what === 'to-head')
    return [at(0, top), at(what === 'from-head' ? fromHead : toHead, top)];
  if (what === 'sill' || what === 'head')
    return [at((from + to) / 2, 0), at((from + to) / 2, what === 'sill' ? sill : top)];
  if (what === 'diagonal-a') return [at(from, sill), at(toHead, top)];
  if (what === 'diagonal-b') return [at(to, sill), at(fromHead, top)];
  const low = what.includes('low');
  const [x, z] = [what.includes('front') ? (low ? from : fromHead) : low ? to : toHead, low ? sill : top];
  return [at(x, z), at(x, z)];
}

/** The ends of the tape for an address; null when it has no place on the fold-out yet. */
export function tapeEnds(where: Where, address: string): TapeEnds | null {
  const { frame, survey } = where;
  const place = parseAddress(address);
  if (!place) return null;
  const { shell } = frame;
  const read = (id: string, what: string): number | null => valueAt(survey, `${place.kind}/${id}/${what}`);
  switch (place.kind) {
    case 'floor': {
      if (place.what === 'length') return [floorAt(frame, 0, 0), floorAt(frame, shell.length, 0)];
      const [first, second] = place.what === 'diagonal-a' ? (['left', 'right'] as const) : (['right', 'left'] as const);
      const edge = (side: 'left' | 'right', x: number): Point =>
        floorAt(frame, x, (side === 'left' ? -1 : 1) * halfWidth(shell, side, x, 0));
      return [edge(first, 0), edge(second, shell.length)];
    }
    case 'level':
      return place.what === 'along'
        ? [floorAt(frame, shell.length / 2 - 200, 0), floorAt(frame, shell.length / 2 + 200, 0)]
        : [floorAt(frame, shell.length / 2, -200), floorAt(frame, shell.length / 2, 200)];
    case 'station': {
      const x = read(place.id, 'x');
      if (x === null) return null;
      if (place.what === 'x') return [floorAt(frame, 0, 0), floorAt(frame, x, 0)];
      if (place.what === 'rest') return [floorAt(frame, x, 0), floorAt(frame, shell.length, 0)];
      if (!('along' in place)) return [floorAt(frame, x, -300), floorAt(frame, x, 300)];
      if (place.what === 'roof') return [floorAt(frame, x, place.along), floorAt(frame, x, place.along)];
      if (place.what === 'width')
        return [onWall(frame, 'left', x, place.along), onWall(frame, 'right', x, place.along)];
      return [floorAt(frame, x, 0), onWall(frame, place.what, x, place.along)];
    }
    case 'rib': {
      const x = read(place.id, 'x');
      if (x === null) return null;
      return place.what === 'x'
        ? [onWall(frame, 'left', 0, 1000), onWall(frame, 'left', x, 1000)]
        : [onWall(frame, 'left', x, 1000), onWall(frame, 'left', x, 1000)];
    }
    case 'arch':
      return archEnds(where, place.id, place.what);
    case 'opening':
      return openingEnds(where, place.id, place.what);
    case 'keepout': {
      const bounds = [...boundsOf(survey), ...boundsOf(survey, 'roof')].find((keepOut) => keepOut.id === place.id);
      if (!bounds) return null;
      const { from, to, left, right } = bounds;
      const [x, y] = [(from + to) / 2, (left + right) / 2];
      if (place.what === 'from' || place.what === 'to')
        return [floorAt(frame, 0, y), floorAt(frame, place.what === 'from' ? from : to, y)];
      return [floorAt(frame, x, 0), floorAt(frame, x, place.what === 'left' ? left : right)];
    }
    case 'hole': {
      const [x, along] = [read(place.id, 'x'), read(place.id, 'along')];
      const surface = survey.penetrations.find((hole) => hole.id === place.id)?.surface;
      if (x === null || along === null || (surface !== 'floor' && surface !== 'left' && surface !== 'right'))
        return null;
      const there = surface === 'floor' ? floorAt(frame, x, along) : onWall(frame, surface, x, along);
      if (place.what === 'size') return [there, there];
      if (surface === 'floor') return [place.what === 'x' ? floorAt(frame, 0, along) : floorAt(frame, x, 0), there];
      return [place.what === 'x' ? onWall(frame, surface, 0, along) : onWall(frame, surface, x, 0), there];
    }
    case 'angle':
      return null;
  }
}
