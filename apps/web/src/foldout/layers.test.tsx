// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import { valueAt } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import wrenFile from '../../../../demo/wren.json?raw';
import { DoubtLayer } from './DoubtLayer.js';
import { foldOutFrame, screenY } from './geometry.js';
import { ReadingLayer } from './ReadingLayer.js';
import { RoughLayer } from './RoughLayer.js';
import { UnitName } from './UnitName.js';

const { project, priceBook: book } = readProjectFile(wrenFile);
const derived = createDeriver().derive(project, book);
const room = derived.inner;
if (!room) throw new Error('Wren has a room');
const frame = foldOutFrame(room, 900, 500);
const { survey } = project;
afterEach(cleanup);

describe('readings on the fold-out', () => {
  const dots = (current: string | null, picked: string[] = []) => {
    render(
      <svg>
        <ReadingLayer
          frame={frame}
          survey={survey}
          arches={derived.arches}
          outliers={[{ address: 'station/s2/left/700', expected: 900, off: 37 } as never]}
          current={current}
          onPick={(address) => void picked.push(address)}
        />
      </svg>,
    );
    return [...document.querySelectorAll<SVGCircleElement>('[data-reading]')];
  };
  it('are full where they are taken and rings where they are open, each at its station', () => {
    const all = dots(null);
    expect(all.length).toBeGreaterThan(70);
    for (const dot of all) {
      const address = dot.getAttribute('data-reading') ?? '';
      expect(dot.getAttribute('fill')).toBe(valueAt(survey, address) === null ? 'var(--paper)' : 'var(--data)');
    }
    const low = all.find((dot) => dot.getAttribute('data-reading') === 'station/s3/left/350');
    expect(Number(low?.getAttribute('cy'))).toBeCloseTo(screenY(frame, 1380), 6);
    // the roof's are seen in the slice
    expect(all.some((dot) => (dot.getAttribute('data-reading') ?? '').includes('/roof/'))).toBe(false);
  });
  it('are picked by a press, also by the number of one that looks wrong', () => {
    const picked: string[] = [];
    const all = dots(null, picked);
    const dot = all.find((one) => one.getAttribute('data-reading') === 'station/s3/left/350');
    if (!dot) throw new Error('it is drawn');
    fireEvent.click(dot);
    fireEvent.click(screen.getByText('1'));
    expect(picked).toEqual(['station/s3/left/350', 'station/s2/left/700']);
  });
  it('have the tape where the one that is asked goes', () => {
    dots('station/s4/right/700');
    const tape = document.querySelector('[data-tape]');
    expect(tape?.getAttribute('data-tape')).toBe('station/s4/right/700');
    const [from, to] = [...(tape?.querySelectorAll('circle') ?? [])].map((end) => Number(end.getAttribute('cx')));
    // from the centre line to the right wall, which is laid flat beside the floor
    expect(from).toBeCloseTo(frame.centre, 6);
    expect(to).toBeGreaterThan(frame.rightFoot);
  });
});

describe('what was only seen', () => {
  const rough = { x: 0.5, along: 0.5 };
  it('is drawn dashed by its name until its place is read', () => {
    const [window] = survey.openings;
    if (!window) throw new Error('there is a window');
    const seen = { ...window, id: 'seen', name: 'Vent', rough };
    const { unmount } = render(
      <svg>
        <RoughLayer frame={frame} survey={{ ...survey, openings: [seen] }} ceiling={false} />
      </svg>,
    );
    expect(screen.getByRole('img', { name: 'Vent' })).toBeTruthy();
    unmount();
    const read = { 'opening/seen/from': [{ value: 1200, method: 'tape' as const, at: '2026-09-12T08:00:00.000Z' }] };
    render(
      <svg>
        <RoughLayer
          frame={frame}
          survey={{ ...survey, openings: [seen], readings: { ...survey.readings, ...read } }}
          ceiling={false}
        />
      </svg>,
    );
    expect(screen.queryByRole('img', { name: 'Vent' })).toBeNull();
  });
  it('is a line on both walls where it is a rib that goes round', () => {
    const rib = { id: 'seen', name: 'Hoop', on: 'ring' as const, flat: true, rough };
    render(
      <svg>
        <RoughLayer frame={frame} survey={{ ...survey, ribs: [rib] }} ceiling={false} />
      </svg>,
    );
    const lines = screen.getAllByRole('img', { name: 'Hoop' });
    for (const line of lines) expect(Number(line.getAttribute('y1'))).toBeCloseTo(screenY(frame, room.length / 2), 6);
    expect(lines.length).toBeGreaterThanOrEqual(2);
  });
});

describe('what is not sure enough', () => {
  const flat = (value: number) => [
    [value, value, value],
    [value, value, value],
  ];
  const shown = (left: number, right: number): NodeListOf<Element> => {
    render(
      <svg>
        <DoubtLayer
          frame={frame}
          doubt={{ xs: [500, 1500, 2500], zs: [200, 900], left: flat(left), right: flat(right) } as never}
          goal={4}
          label="doubt"
          legend="hatched: not sure"
        />
      </svg>,
    );
    return document.querySelectorAll('path');
  };
  it('is hatched where it is beyond the goal, closer far beyond, and says nothing where all is well', () => {
    expect(shown(3, 4)).toHaveLength(0);
    expect(screen.queryByText('hatched: not sure')).toBeNull();
    cleanup();
    const fills = [...shown(5, 11)].map((path) => path.getAttribute('fill'));
    expect(fills).toEqual([
      'url(#hatch-doubt)',
      'url(#hatch-doubt)',
      'url(#hatch-doubt-deep)',
      'url(#hatch-doubt-deep)',
    ]);
    expect(screen.getByText('hatched: not sure')).toBeTruthy();
  });
});

describe('the name of a unit', () => {
  const kitchen = project.layout.units.find(({ id }) => id === 'kitchen');
  const named = (name: string, length: number): string => {
    if (!kitchen) throw new Error('there is a kitchen');
    render(
      <svg>
        <UnitName frame={frame} unit={{ ...kitchen, name, body: { ...kitchen.body, length } as never }} />
      </svg>,
    );
    const text = document.querySelector('svg')?.textContent ?? '';
    cleanup();
    return text;
  };
  it('is written with its length where there is room, alone where there is little, and not over its ends', () => {
    expect(named('Kitchen', 1445)).toMatch(/^Kitchen/);
    expect(named('A name that is much longer than the unit is', 200)).toBe('');
    expect(named('K', 50)).toBe('');
  });
});
