import { Check } from '../../kit/Check.js';
import { surfaceTitle } from '../../kit/surface-words.js';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import CloseIcon from '@mui/icons-material/Close';
import { useEffect, useState } from 'react';
import { layersOn, type Layer } from '@nestplank/core/document';
import {
  BATTEN_SPACING_MM,
  FLOOR_SCHOOLS,
  floorSchool,
  LINING_SCHOOLS,
  plainLayer,
  priceOfArea,
  surfaceU,
  WALL_SCHOOLS,
  wallSchool,
} from '@nestplank/core/layers';
import { materialOf } from '@nestplank/core/materials';
import { openBefore } from '@nestplank/core/measure';
import { formatMoney, parseLength, type Message } from '@nestplank/core/words';
import { ribShares } from '@nestplank/core/shell';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';
import { SampleDrawing } from './SampleDrawing.js';

const PLACES = ['in-ribs', 'rib-battens', 'battens', 'between-battens', 'continuous', 'patches'] as const;

/** Surfaces on which something may be found that has to be closed first. */
const FOUND_ON = ['floor', 'left', 'right', 'rear', 'ceiling'] as const;

interface School {
  readonly value: string;
  readonly text: string;
  readonly layers: Layer[];
}

/** The schools that a surface can start from. */
function schoolsOf(surface: string, scene: Scene, t: ReturnType<typeof useSpeech>['t']): School[] {
  if (surface === 'floor')
    return FLOOR_SCHOOLS.map((school) => ({
      value: school,
      text: t(`layers.school.${school}`),
      layers: floorSchool(school, scene.book),
    }));
  if (surface !== 'left' && surface !== 'right' && surface !== 'ceiling') return [];
  return WALL_SCHOOLS.flatMap((moisture) =>
    LINING_SCHOOLS.map((lining) => ({
      value: `${moisture}-${lining}`,
      text: `${t(`layers.school.${moisture}`)}; ${t(`layers.lining.${lining}`)}`,
      layers: wallSchool(surface, moisture, lining, scene.book),
    })),
  );
}

/** Takes a school's layers for a surface. */
function SchoolMenu({ surface, scene }: { readonly surface: string; readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const schools = schoolsOf(surface, scene, t);
  if (schools.length === 0) return null;
  const take = (school: School): void => {
    setAnchor(null);
    const refused = act({ name: 'replaceLayers', payload: { surface, layers: school.layers } });
    if (refused) notify(said(refused), 'trouble');
  };
  return (
    <>
      <Button size="small" variant="text" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        {t('layers.school')}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {schools.map((school) => (
          <MenuItem key={school.value} onClick={() => take(school)}>
            {school.text}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

/** What the bought material really measures; empty as long as it was not measured. */
function MeasuredField({
  layer,
  soldAs,
  onTake,
}: {
  readonly layer: Layer;
  readonly soldAs: string;
  readonly onTake: (measured: number | null) => Message | null;
}) {
  const { t, entry, style, said } = useSpeech();
  const shown = layer.measured === null ? '' : entry(layer.measured);
  const [typed, setTyped] = useState(shown);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(shown);
    setProblem(null);
  }, [shown]);
  const take = (): void => {
    if (typed.trim() === shown) return;
    const read = typed.trim() === '' ? null : parseLength(typed, style.units);
    const refused = read === null ? onTake(null) : read.ok ? onTake(read.mm) : read.error;
    setProblem(refused && said(refused));
  };
  return (
    <TextField
      label={`${t('layers.measured')}, ${style.units}`}
      value={typed}
      error={problem !== null}
      helperText={problem ?? (soldAs === '' ? undefined : t('layers.soldAs', { size: soldAs }))}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

/** One surface: its layers drawn to scale, and each of them to change, swap and stack. */
export function Sample({ surface, scene }: { readonly surface: string; readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, said, len, lenUnit } = speech;
  const [open, setOpen] = useState<string | null>(null);
  const depth = scene.shape.depths[surface];
  const layers = layersOn(scene.project.buildUps, surface);
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
    const layer = plainLayer(`${surface}-${number}`, material.id, material.thickness, 'continuous');
    attempt(put(layer));
    setOpen(layer.id);
  };
  const copyLeft = (): void => {
    const taken = layersOn(scene.project.buildUps, 'left').map((layer) => ({
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
  const spacing = surface === 'floor' ? scene.project.settings.floorBattens.spacing : BATTEN_SPACING_MM;
  if (!depth) return null;
  const u = surfaceU(
    depth,
    ribShares(scene.shape.ribs, scene.shape.shell),
    scene.project.settings.floorBattens.spacing,
  );
  const price = depth.layers.reduce((sum, { material }) => sum + (material ? priceOfArea(material, spacing) : 0), 0);
  const place = FOUND_ON.find((candidate) => candidate === surface);
  const toClose = place === undefined ? 0 : openBefore(scene.project, place).filter((point) => point.stops).length;
  return (
    <section className="sample stack" aria-label={surfaceTitle(surface, speech)}>
      <div className="row apart">
        <h2>{surfaceTitle(surface, speech)}</h2>
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
          ribDepth={depth.ribDepth}
          onStretch={({ id }, thickness) => {
            const own = layers.find((layer) => layer.id === id);
            return own ? put({ ...own, thickness }) : null;
          }}
        />
      )}
      <div>
        {layers.map((layer, i) => {
          const material = materialOf(scene.book, layer.material);
          const name = material?.name ?? layer.material;
          const real = depth.layers.find((laid) => laid.layer.id === layer.id)?.thickness ?? layer.thickness;
          return (
            <div key={layer.id}>
              <div className="layer-line">
                <Button
                  className="to-start"
                  variant="text"
                  onClick={() => setOpen(open === layer.id ? null : layer.id)}
                  aria-expanded={open === layer.id}
                >
                  {name}
                </Button>
                <span className="figures to-right">{len(real, real % 1 === 0 ? 0 : 1)}</span>
                <span className="soft small to-right">
                  {layer.board ? t('layers.board') : t(`layers.place.${layer.place}`)}
                </span>
              </div>
              {open === layer.id && (
                <div className="fields layer-fields">
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
                  <MeasuredField
                    layer={layer}
                    soldAs={material?.soldAs ?? ''}
                    onTake={(measured) => put({ ...layer, measured })}
                  />
                  {layer.measured === null && real !== layer.thickness && (
                    <p className="small whole">{t('layers.asBought', { thickness: lenUnit(real) })}</p>
                  )}
                  {layer.place === 'patches' && (
                    <NumberField
                      label={t('layers.share')}
                      value={Math.round(layer.share * 100)}
                      least={1}
                      most={100}
                      whole
                      onTake={(percent) => put({ ...layer, share: percent / 100 })}
                    />
                  )}
                  <PickField
                    label={t('layers.place')}
                    value={layer.place}
                    choices={PLACES.map((value) => ({ value, text: t(`layers.place.${value}`) }))}
                    onPick={(place) => attempt(put({ ...layer, place }))}
                  />
                  <div className="row whole apart">
                    {surface === 'floor' && material && material.stocks.length > 0 ? (
                      <Check
                        label={t('layers.board')}
                        checked={layer.board}
                        onCheck={(board) => put({ ...layer, board })}
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
      {scene.derived.warnings
        .filter((warning) => warning.surface === surface)
        .map((warning) => (
          <p key={warning.said.key} className="small needs">
            ! {said(warning.said)}
          </p>
        ))}
      <div className="row wrap">
        <Button size="small" onClick={add}>
          {t('layers.add')}
        </Button>
        <SchoolMenu surface={surface} scene={scene} />
        {toClose > 0 && <span className="small needs">{t('layers.openPoints', { count: toClose })}</span>}
        {surface === 'right' && layersOn(scene.project.buildUps, 'left').length > 0 && (
          <Button size="small" variant="text" onClick={copyLeft}>
            {t('layers.copy')}
          </Button>
        )}
      </div>
    </section>
  );
}
