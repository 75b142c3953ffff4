import type { StageName } from '../stages/stages.js';
import type { UiKey } from '../words/en.js';
import { tell } from '../words/words.js';

const EVERYWHERE: readonly [string, UiKey][] = [
  ['1 – 7', 'keys.stages'],
  ['space', 'keys.line'],
  ['u', 'keys.undo'],
  ['Shift u', 'keys.redo'],
  ['i', 'keys.units'],
  ['t', 'keys.theme'],
  ['esc', 'keys.escape'],
  ['?', 'keys.help'],
];
const DRAWING: readonly [string, UiKey][] = [
  ['[ ]', 'keys.slice'],
  ['c', 'keys.ceiling'],
  ['x', 'keys.exaggerate'],
];
const OF_STAGE: Partial<Record<StageName, readonly [string, UiKey][]>> = {
  measure: [['↵', 'keys.enter'], ...DRAWING],
  layers: [['[ ]', 'keys.slice']],
  cut: [
    ['b', 'keys.bench'],
    ['↵', 'keys.benchDone'],
  ],
  layout: [
    ['↑ ↓ ← →', 'keys.move'],
    ['Delete', 'keys.remove'],
    ['Shift ↵', 'keys.group'],
    ['a d f g …', 'keys.modes'],
    ...DRAWING,
  ],
};

/** The keys of the present stage. */
export function KeysPanel({ stage }: { readonly stage: StageName }) {
  return (
    <table className="plain">
      <tbody>
        {[...(OF_STAGE[stage] ?? []), ...EVERYWHERE].map(([key, what]) => (
          <tr key={key}>
            <td className="narrow-field">
              <kbd>{key}</kbd>
            </td>
            <td>{tell(what)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
