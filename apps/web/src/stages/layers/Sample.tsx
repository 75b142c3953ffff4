import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import CloseIcon from '@mui/icons-material/Close';
import { useState } from 'react';
import { formatMoney, materialOf, thermalTransmittance, type Layer, type Message, type Surface } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../ui/LengthField.js';
import { PickField } from '../../ui/PickField.js';
import { useSpeech } from '../../words/words.js';
import { SampleDrawing } from './SampleDrawing.js';

const PLACES = ['in-ribs', 'battens', 'between-battens', 'continuous'] as const;

/** One surface: its layers drawn to scale, and each of them to change, swap and stack. */
export function Sample({ surface, scene }: { readonly surface: Surface; readonly scene: Scene }) {
  const { t, said, len } = useSpeech();
  const [open, setOpen] = useState<string | null>(null);
  const depth = scene.shape.depths[surface];
  const layers = scene.project.buildUps[surface];
  const choices = scene.book.items
    .filter((item) => item.thickness > 0)
    .map((item) => ({ value: item.id, text: item.name }));
  const put = (layer: Layer, at?: number): Message | null => act({ name: 'putLayer', payload: { surface, layer, at } });
  const attempt = (refused: Message | null): void => {
    if (refused) notify(said(refused), 'trouble');
  };
  const add = (): void => {
    const used = new Set(layers.map((layer) => layer.id));
    let number = layers.length + 1;
    while (used.has(`${surface}-${number}`)) number += 1;
    const first = choices.find((choice) => !layers.some((layer) => layer.material === choice.value)) ?? choices[0];
    const material = first && materialOf(scene.book, first.value);
    if (!material) return;
    const layer: Layer = {
      id: `${surface}-${number}`,
      material: material.id,
      thickness: material.thickness,
      place: 'continuous',
      board: false,
    };
    attempt(put(layer));
    setOpen(layer.id);
  };
  const copyLeft = (): void => {
    const taken = scene.project.buildUps.left.map((layer) => ({
      name: 'putLayer' as const,
      payload: { surface, layer: { ...layer, id: `r-${layer.id}` } },
    }));
    attempt(
      act(...layers.map((layer) => ({ name: 'removeLayer' as const, payload: { surface, id: layer.id } })), ...taken),
    );
  };
  const swap = (material: string, layer: Layer): void => {
    const item = materialOf(scene.book, material);
    if (item) attempt(put({ ...layer, material, thickness: item.thickness }));
  };
  const u = thermalTransmittance(depth);
  const price = depth.layers.reduce(
    (sum, { material }) =>
      sum +
      (material?.pack && (material.pack.unit === 'm2' || material.pack.unit === 'm')
        ? material.pack.price / material.pack.contents / (material.pack.unit === 'm' ? 0.4 : 1)
        : material?.stocks[0]
          ? material.stocks[0].price / ((material.stocks[0].length * material.stocks[0].width) / 1e6)
          : 0),
    0,
  );
  return (
    <section className="sample stack" aria-label={t(`layers.title.${surface}`)}>
      <div className="row apart">
        <h2>{t(`layers.title.${surface}`)}</h2>
        <span className="figures">
          <b>{t('layers.takes', { takes: len(depth.total, depth.total % 1 === 0 ? 0 : 1) })}</b>
          {layers.length > 0 && (
            <span className="soft">
              {' '}
              · {u === null ? t('layers.uUnknown') : t('layers.u', { value: u.toFixed(2) })} ·{' '}
              {t('layers.price', { money: formatMoney(Math.round(price), scene.book.currency) })}
            </span>
          )}
        </span>
      </div>
      {layers.length === 0 ? (
        <p className="soft">{t('layers.none')}</p>
      ) : (
        <SampleDrawing
          surface={surface}
          depth={depth}
          ribDepth={surface === 'floor' ? 0 : scene.shape.ribDepth}
          onStretch={(layer, thickness) => put({ ...layer, thickness })}
        />
      )}
      <div>
        {layers.map((layer, i) => {
          const material = materialOf(scene.book, layer.material);
          const name = material?.name ?? layer.material;
          return (
            <div key={layer.id}>
              <div className="layer-line">
                <Button
                  variant="text"
                  onClick={() => setOpen(open === layer.id ? null : layer.id)}
                  aria-expanded={open === layer.id}
                  style={{ justifyContent: 'flex-start', textAlign: 'left', minHeight: 36 }}
                >
                  {name}
                </Button>
                <span className="figures" style={{ textAlign: 'right' }}>
                  {len(layer.thickness, layer.thickness % 1 === 0 ? 0 : 1)}
                </span>
                <span className="soft small" style={{ minWidth: 96, textAlign: 'right' }}>
                  {layer.board ? t('layers.board') : t(`layers.place.${layer.place}`)}
                </span>
              </div>
              {open === layer.id && (
                <div className="fields" style={{ padding: '12px 0 14px', gridTemplateColumns: '1.5fr 0.8fr 1fr' }}>
                  <PickField
                    label={t('layers.material')}
                    value={layer.material}
                    choices={choices}
                    onPick={(value) => swap(value, layer)}
                  />
                  <LengthField
                    label={t('layers.thickness')}
                    value={layer.thickness}
                    onTake={(thickness) => put({ ...layer, thickness })}
                  />
                  <PickField
                    label={t('layers.place')}
                    value={layer.place}
                    choices={PLACES.map((value) => ({ value, text: t(`layers.place.${value}`) }))}
                    onPick={(place) => attempt(put({ ...layer, place }))}
                  />
                  <div className="row" style={{ gridColumn: '1 / -1', justifyContent: 'space-between' }}>
                    {surface === 'floor' && material && material.stocks.length > 0 ? (
                      <FormControlLabel
                        control={
                          <Checkbox
                            checked={layer.board}
                            onChange={(_event, board) => attempt(put({ ...layer, board }))}
                          />
                        }
                        label={t('layers.board')}
                      />
                    ) : (
                      <span />
                    )}
                    <span>
                      <IconButton
                        disabled={i === 0}
                        onClick={() => attempt(put(layer, i - 1))}
                        aria-label={`${t('layers.down')}: ${name}`}
                      >
                        <ArrowUpwardIcon />
                      </IconButton>
                      <IconButton
                        disabled={i === layers.length - 1}
                        onClick={() => attempt(put(layer, i + 1))}
                        aria-label={`${t('layers.up')}: ${name}`}
                      >
                        <ArrowDownwardIcon />
                      </IconButton>
                      <IconButton
                        onClick={() => attempt(act({ name: 'removeLayer', payload: { surface, id: layer.id } }))}
                        aria-label={`${t('common.remove')} ${name}`}
                      >
                        <CloseIcon />
                      </IconButton>
                    </span>
                  </div>
                </div>
              )}
            </div>
          );
        })}
      </div>
      <div className="row">
        <Button size="small" onClick={add}>
          {t('layers.add')}
        </Button>
        {surface === 'right' && scene.project.buildUps.left.length > 0 && (
          <Button size="small" variant="text" onClick={copyLeft}>
            {t('layers.copy')}
          </Button>
        )}
      </div>
    </section>
  );
}
