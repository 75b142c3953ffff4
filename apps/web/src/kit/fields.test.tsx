// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { familyNamed, type Unit } from '@nestplank/core/document';
import { FAMILIES, type Family } from '@nestplank/core/furniture';
import { message } from '@nestplank/core/words';
import { readProjectFile } from '@nestplank/core/formats';
import { ledge } from '../../../../packages/core/src/derive/fixtures/ledge.js';
import { speechFor } from '../words/speech.js';
import { FieldGrid } from './FieldGrid.js';
import { LengthField } from './LengthField.js';
import { fieldLabel } from './unit-words.js';
import demo from '../../../../demo/wren.json?raw';

afterEach(cleanup);
const wren = readProjectFile(demo).project;
const speech = speechFor({ units: 'mm', fraction: 16 });

describe('a field that is typed', () => {
  const shown = (onTake: (mm: number) => ReturnType<typeof message> | null) => {
    const { rerender } = render(<LengthField label="Depth" value={400} onTake={onTake} />);
    return {
      field: screen.getByLabelText<HTMLInputElement>('Depth, mm'),
      now: (value: number) => rerender(<LengthField label="Depth" value={value} onTake={onTake} />),
    };
  };
  it('is taken on Enter or on leaving it, sums allowed, and once', async () => {
    const onTake = vi.fn(() => null);
    const { field } = shown(onTake);
    const user = userEvent.setup();
    await user.clear(field);
    await user.type(field, '2440-2*18{Enter}');
    expect(onTake.mock.calls).toEqual([[2404]]);
    await user.tab();
    expect(onTake).toHaveBeenCalledTimes(1);
    await user.clear(field);
    await user.type(field, '410');
    await user.tab();
    expect(onTake).toHaveBeenLastCalledWith(410);
  });
  it('keeps what cannot be taken, with the reason beside it; Escape gives up', async () => {
    const onTake = vi.fn(() => message('operation.twice', { id: 'x' }));
    const { field } = shown(onTake);
    const user = userEvent.setup();
    await user.clear(field);
    await user.type(field, 'wide{Enter}');
    expect([field.value, field.getAttribute('aria-invalid'), onTake.mock.calls.length]).toEqual(['wide', 'true', 0]);
    await user.clear(field);
    await user.type(field, '12{Enter}');
    expect([field.value, onTake.mock.calls.length]).toEqual(['12', 1]);
    expect(screen.getByText('There is a x already.')).toBeTruthy();
    await user.type(field, '{Escape}');
    expect([field.value, field.getAttribute('aria-invalid')]).toEqual(['400', 'false']);
  });
  it('what was not changed is not taken, and a change from elsewhere is shown', async () => {
    const onTake = vi.fn(() => null);
    const { field, now } = shown(onTake);
    const user = userEvent.setup();
    await user.click(field);
    await user.tab();
    expect(onTake).not.toHaveBeenCalled();
    now(450);
    expect(field.value).toBe('450');
  });
});

describe('a form made from what a family says', () => {
  const unitOf = (family: Family): Unit => {
    const unit = wren.layout.units.find((own) => own.family === family.id);
    return (
      unit ?? {
        ...(wren.layout.units[0] as Unit),
        id: 'own',
        family: family.id,
        options: { lip: 20 },
        materials: { board: 'birch-12' },
      }
    );
  };
  it.each([...FAMILIES, ledge].map((family) => [family.id, family] as const))(
    '%s: shows each of its fields under its label, in its order',
    (_id, family) => {
      const unit = unitOf(family);
      const { container } = render(
        <FieldGrid
          fields={family.fields}
          of={unit}
          labelOf={(name) => fieldLabel(family, name, speech)}
          sheets={[]}
          people={[]}
          onTake={() => null}
          onRefused={() => undefined}
        />,
      );
      const fields = family.fields.filter((field) => field.kind !== 'people' && field.when?.(unit) !== false);
      const typed = [...container.querySelectorAll<HTMLElement>('input:not([aria-hidden]), [role=combobox]')];
      const labels = typed.map((input) =>
        (
          input.getAttribute('aria-label') ??
          (input instanceof HTMLInputElement ? input.labels?.[0]?.textContent : null) ??
          ''
        ).replace(/, mm$/, ''),
      );
      expect(labels).toEqual(fields.map((field) => fieldLabel(family, field.name, speech)));
      expect(labels.length).toBeGreaterThan(2);
    },
  );
  it('a family of one file more gets its own field, and what is typed there reaches it', async () => {
    const onTake = vi.fn(() => null);
    render(
      <FieldGrid
        fields={ledge.fields}
        of={unitOf(ledge)}
        labelOf={(name) => fieldLabel(ledge, name, speech)}
        sheets={[]}
        people={[]}
        onTake={onTake}
        onRefused={() => undefined}
      />,
    );
    const field = screen.getByLabelText<HTMLInputElement>(`${ledge.words.fields['lip'] ?? ''}, mm`);
    expect(field.value).toBe('20');
    const user = userEvent.setup();
    await user.clear(field);
    await user.type(field, '3 cm{Enter}');
    expect(onTake.mock.calls).toEqual([['lip', 30]]);
    expect(familyNamed(FAMILIES, ledge.id)).toBeNull();
  });
});
