import Button from '@mui/material/Button';
import { ruleNamed } from '@nestplank/core/layout';
import { message, type Message } from '@nestplank/core/words';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

/** How a rule judges and why, with those of its figures that this project may change. */
export function RuleWhy({ name, scene }: { readonly name: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const rule = ruleNamed(name);
  if (!rule) return null;
  const own = scene.project.settings.figures?.[name] ?? {};
  const take = (figure: string, value: number | null): Message | null =>
    act({ name: 'setFigure', payload: { rule: name, figure, value } });
  return (
    <div className="stack small rule-why">
      <p>
        <strong>{rule.title}.</strong> {rule.reason}
      </p>
      <p className="soft">{rule.formula}</p>
      {rule.figures && (
        <div className="fields two">
          {Object.entries(rule.figures).map(([id, { label, value, unit, least, most }]) =>
            unit === 'mm' ? (
              <LengthField
                key={id}
                label={label}
                value={own[id] ?? value}
                onTake={(typed) =>
                  typed < least || typed > most
                    ? message('figure.limits', { least: { mm: least }, most: { mm: most } })
                    : take(id, typed === value ? null : typed)
                }
              />
            ) : (
              <NumberField
                key={id}
                label={`${label}, ${unit}`}
                value={own[id] ?? value}
                least={least}
                most={most}
                onTake={(typed) => take(id, typed === value ? null : typed)}
              />
            ),
          )}
        </div>
      )}
      {Object.keys(own).length > 0 && (
        <div>
          <Button
            size="small"
            variant="text"
            onClick={() =>
              change(
                ...Object.keys(own).map((figure) => ({
                  name: 'setFigure' as const,
                  payload: { rule: name, figure, value: null },
                })),
              )
            }
          >
            {t('rule.usual')}
          </Button>
        </div>
      )}
    </div>
  );
}
