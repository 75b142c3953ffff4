// @vitest-environment jsdom
import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '@nestplank/core/derive';
import { applyOperation } from '@nestplank/core/furniture';
import { readProjectFile } from '@nestplank/core/formats';
import { foldOutFrame, screenY } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { behindRear, movedParts } from './modes.js';
import { SmallPlan } from './SmallPlan.js';

const { project, priceBook: book } = readProjectFile(wrenFile);
const bare = derive(project, book);
const room = bare.inner;
if (!room) throw new Error('Wren has a room');

/** Wren with nothing in it but a tray of a metre that begins so far before the rear end and slides out there. */
function withTray(before: number) {
  const next = applyOperation(
    { ...project, layout: { units: [] } },
    {
      name: 'placeUnit',
      payload: {
        unit: {
          id: 'crates',
          family: 'rack',
          name: 'Crates',
          body: {
            stands: 'free',
            x: (room?.length ?? 0) - before,
            length: 1000,
            y: -300,
            width: 600,
            from: 0,
            to: 500,
          },
          meets: { foot: { how: 'square' } },
          division: { name: 'level-1', holds: { kind: 'hold' }, front: { kind: 'none' } },
          school: 'plywood',
          materials: { board: 'birch-12', lip: 'birch-9' },
          options: { lipHigh: 60, opens: 'rear', slides: true, latch: true, load: 0, eyes: 4, eyeHolds: 1000 },
        },
      },
    },
  ).project;
  const shape = derive(next, book);
  return { project: next, shape, derived: shape, room, book } as unknown as Scene;
}

describe('what is drawn out behind the rear end', () => {
  it('is as far as it reaches past it, and nothing where all stays inside', () => {
    // 1010 before the end, 1000 long, drawn out by 800
    expect(behindRear(withTray(1010).shape.made, room.length)).toBe(790);
    expect(behindRear(withTray(2500).shape.made, room.length)).toBe(0);
    expect(behindRear(bare.made, room.length)).toBe(0);
  });

  it('has room on the fold-out, which is as large as before where nothing is', () => {
    const [plain, more] = [foldOutFrame(room, 900, 500), foldOutFrame(room, 900, 500, 790)];
    expect(foldOutFrame(room, 900, 500, 0)).toEqual(plain);
    expect(more.scale).toBeLessThan(plain.scale);
    expect(screenY(more, room.length + 790)).toBeLessThanOrEqual(500 - 40);
    expect(screenY(plain, room.length + 790)).toBeGreaterThan(500);
  });

  it('widens the small plan of the mode it is drawn out in', () => {
    const scene = withTray(1010);
    const wide = (states: Readonly<Record<string, number>>): number => {
      const { container } = render(
        <SmallPlan units={scene.project.layout.units} room={room} high={40} moved={movedParts(scene, states)} />,
      );
      return Number(container.querySelector('svg')?.getAttribute('width'));
    };
    expect(wide({ 'crates.slide': 1 })).toBeGreaterThan(wide({}) * 1.15);
    // and it is drawn once, where it then is
    const drawn = (states: Readonly<Record<string, number>>): number => {
      const { container } = render(
        <SmallPlan units={scene.project.layout.units} room={room} high={40} moved={movedParts(scene, states)} />,
      );
      return container.querySelectorAll('path').length;
    };
    expect(drawn({ 'crates.slide': 1 })).toBe(drawn({}));
    expect(wide({ 'crates.slide': 0 })).toBe(wide({}));
  });
});
