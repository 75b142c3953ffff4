import { Check } from '../../../kit/Check.js';
import { Problem } from '../../../kit/Problem.js';
import type { BoxChoice } from '@nestplank/core/document';
import { isBar, materialOf } from '@nestplank/core/materials';
import { placedOpenings } from '@nestplank/core/shell';
import type { Message } from '@nestplank/core/words';
import { unitName, type Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NumberField } from '../../../kit/NumberField.js';
import { PickField } from '../../../kit/PickField.js';
import { useSpeech } from '../../../words/use-speech.js';

/** A list of openings with one of them taken in or out. */
const changed = (list: readonly string[] | undefined, id: string, there: boolean): string[] =>
  there ? [...(list ?? []), id] : (list ?? []).filter((own) => own !== id);

/** Window boxes and arch boxes: what they are made of, how large they come out, which arches get one. */
export function Boxes({ scene, of }: { readonly scene: Scene; readonly of: 'windows' | 'arches' | 'wall' }) {
  const { t, len, said } = useSpeech();
  const { boxes } = scene.project;
  const { lined, arches } = scene.shape;
  const change = (changes: Partial<BoxChoice>): Message | null => act({ name: 'changeBoxes', payload: { changes } });
  const radii = new Map(placedOpenings(scene.project.survey).map(({ opening }) => [opening.id, opening.cornerRadius]));
  const between = (low: number, high: number): string =>
    Math.abs(high - low) < 0.5 ? len(low) : t('box.slanted', { low: len(low), high: len(high) });
  const wheels = arches.filter((arch) => arch.kind === 'arch' && arch.bottom <= 0 && arch.far === null);
  const sheets = scene.book.items.filter((item) => item.stocks.length > 0);
  const profiles = scene.book.items.filter(isBar);
  if (lined.windowBoxes.length === 0 && wheels.length === 0) return <p className="small soft">{t('box.none')}</p>;
  return (
    <section className="section stack">
      <h2>{t('box.title')}</h2>
      <div className="fields">
        <PickField
          label={t('box.board')}
          value={boxes.board}
          choices={sheets.map((item) => ({ value: item.id, text: item.name }))}
          onPick={(board) => change({ board })}
        />
        <PickField
          label={t('box.trim')}
          value={boxes.trim}
          choices={profiles.map((item) => ({ value: item.id, text: item.name }))}
          onPick={(trim) => change({ trim })}
        />
        <PickField
          label={t('box.load')}
          value={boxes.load}
          choices={(['step', 'seat', 'store'] as const).map((value) => ({ value, text: t(`box.load.${value}`) }))}
          onPick={(load) => change({ load })}
        />
        {boxes.load === 'store' && (
          <NumberField
            label={t('box.stored')}
            value={boxes.stored}
            least={0}
            most={2000}
            onTake={(stored) => change({ stored })}
          />
        )}
        <PickField
          label={t('box.access')}
          value={boxes.access}
          choices={(['fixed', 'lid'] as const).map((value) => ({ value, text: t(`box.access.${value}`) }))}
          onPick={(access) => change({ access })}
        />
        <LengthField label={t('box.scribe')} value={boxes.scribe ?? 0} onTake={(scribe) => change({ scribe })} />
        <LengthField label={t('box.clearance')} value={boxes.clearance} onTake={(clearance) => change({ clearance })} />
      </div>
      {of !== 'arches' &&
        lined.windowBoxes.map((box) => (
          <div key={box.opening}>
            <p className="small">
              {t(box.above ? 'box.hatch' : 'box.window', {
                name: box.name,
                outside: `${between(box.outside.to - box.outside.from, box.outside.toHead - box.outside.fromHead)} × ${len(box.outside.head - box.outside.sill)}`,
                length: between(box.clear.length, box.clear.top),
                height: len(box.clear.height),
                lost: Math.round(100 * box.lost),
              })}
            </p>
            {(radii.get(box.opening) ?? 0) > 0 && (
              <p className="small soft figures">{t('box.rounded', { radius: len(radii.get(box.opening) ?? 0) })}</p>
            )}
            {box.leans !== 'no' && (
              <Check
                label={t('box.upright', { name: box.name })}
                checked={box.leans === 'opening-alone'}
                onCheck={(upright) => change({ upright: changed(boxes.upright, box.opening, upright) })}
              />
            )}
            {box.track && (
              <p className="small soft figures">
                {t('box.track', {
                  length: len(box.track.length),
                  brackets: box.track.brackets,
                  hems: box.track.hems.map((hem) => len(hem)).join(', '),
                })}
              </p>
            )}
            {(box.track ?? (boxes.curtains ?? []).includes(box.opening)) && (
              <Check
                label={t('box.curtain', { name: box.name })}
                checked={(boxes.curtains ?? []).includes(box.opening)}
                onCheck={(hung) => change({ curtains: changed(boxes.curtains, box.opening, hung) })}
              />
            )}
            {box.behind.length > 0 && (
              <p className="small">
                {t('box.behind', { name: box.name, units: box.behind.map((id) => unitName(scene, id)).join(', ') })}
              </p>
            )}
            <Held of={box.opening} scene={scene} />
            {box.missing.length > 0 && (
              <p className="small needs">
                {t('box.missing', {
                  name: box.name,
                  sides: box.missing.map((side) => t(`box.side.${side}`)).join(', '),
                })}
              </p>
            )}
          </div>
        ))}
      {of !== 'windows' &&
        wheels.map((arch) => {
          const box = lined.archBoxes.find((candidate) => candidate.arch === arch.id);
          return (
            <div key={arch.id}>
              <Check
                label={t('box.arch', { name: arch.name })}
                checked={boxes.arches.includes(arch.id)}
                onCheck={(boxed) =>
                  change({
                    arches: boxed ? [...boxes.arches, arch.id] : boxes.arches.filter((id) => id !== arch.id),
                  })
                }
              />
              {box && (
                <p className="small figures">
                  {t(box.sag === null ? 'box.archUnknown' : 'box.archFigures', {
                    length: len(box.length),
                    height: len(box.height),
                    depth: len(box.depth),
                    dead: Math.round(box.dead),
                    sag: len(box.sag ?? 0, 1),
                    allowed: len(box.allowed, 1),
                    load: t(`box.under.${boxes.load}`, { newtons: Math.round(box.load.newtons) }),
                  })}{' '}
                  {t('box.archMore', {
                    brackets: box.brackets,
                    length: len(box.notch.length),
                    height: len(box.notch.height),
                    depth: len(box.notch.depth),
                  })}
                </p>
              )}
              {box && <Held of={box.arch} scene={scene} />}
              {box?.problems.map((problem) => (
                <Problem key={problem.key}>{said(problem)}</Problem>
              ))}
            </div>
          );
        })}
    </section>
  );
}

/** What one box is put together with: exactly what is bought for it. */
export function Held({ of, scene }: { readonly of: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  const held = scene.shape.lined.boxesHeld.find((one) => one.of === of);
  if (!held) return null;
  const glue = held.items.filter(({ use }) => use === 'glue').reduce((sum, { amount }) => sum + amount, 0);
  const items = [
    ...held.items.filter(({ use }) => use !== 'glue'),
    ...(glue > 0 ? [{ use: 'glue' as const, item: '', amount: glue }] : []),
  ].map(({ use, item, amount }) =>
    t(`box.held.${use}`, { amount: Math.ceil(amount), item: materialOf(scene.book, item)?.name ?? item }),
  );
  return (
    <>
      {items.length > 0 && (
        <p className="small soft figures">{t('box.held', { name: held.name, items: items.join(', ') })}</p>
      )}
      {held.unheld.length > 0 && (
        <p className="small needs">
          {t('box.unheld', { name: held.name, what: held.unheld.map((use) => t(`box.unheld.${use}`)).join(', ') })}
        </p>
      )}
    </>
  );
}
