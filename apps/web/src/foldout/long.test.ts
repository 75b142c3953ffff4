import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { foldOutFrame, leavesSides } from './geometry.js';

const shellOf = (file: string) => {
  const { project, priceBook } = readProjectFile(file);
  const { shell } = derive(project, priceBook);
  if (!shell) throw new Error('it is measured');
  return shell;
};

describe('a vehicle that is long for its width', () => {
  it('leaves the sides of its pane empty, a short one does not', () => {
    expect([wrenFile, bulrushFile, thimbleFile].map((file) => leavesSides(shellOf(file)))).toEqual([
      false,
      true,
      false,
    ]);
  });
  it('is drawn as large as its height lets it be where room is taken away beside it', () => {
    const shell = shellOf(bulrushFile);
    const [under, beside] = [foldOutFrame(shell, 910, 450), foldOutFrame(shell, 736, 541)];
    // the strip of modes is 91 high below the drawing, and 174 wide beside it
    expect(beside.scale).toBeGreaterThan(1.2 * under.scale);
    expect(beside.rightEdge).toBeLessThan(736);
    expect(beside.leftEdge).toBeGreaterThan(0);
  });
});
