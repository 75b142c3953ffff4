import Button from '@mui/material/Button';
import type { GridColDef } from '@mui/x-data-grid';
import { useState } from 'react';
import type { PriceItem } from '@nestplank/core/document';
import { materialsOf } from '@nestplank/core/furniture';
import { blankMaterial, copied, materialOf } from '@nestplank/core/materials';
import { formatMoney, type Message } from '@nestplank/core/words';
import { Check } from '../../kit/Check.js';
import { Grid } from '../../kit/Grid.js';
import { LengthField } from '../../kit/LengthField.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { changeMaterial, changePrice, removePrice, reprice } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { BookFile } from './BookFile.js';
import { HardwareFields, UsualHardware } from './HardwareFields.js';
import { MaterialData } from './MaterialData.js';

const GROUPS = ['sheet', 'insulation', 'timber', 'lining', 'adhesive', 'fixing'] as const;
const HATCHES = ['birch', 'pine', 'poplar', 'foam', 'wool', 'grey'] as const;
const PACKS = ['none', 'piece', 'ml', 'm2', 'm'] as const;
const FASTENERS = ['none', 'wood', 'metal', 'brad'] as const;
const today = (): string => new Date().toISOString().slice(0, 10);

/** What one of it costs as it is sold: its first size, or its pack, minor units; null without a price. */
const priceOf = ({ stocks, pack }: PriceItem): number | null => pack?.price ?? stocks[0]?.price ?? null;

/** Every material in the price book, to be found by a few letters and opened by a press. */
export function PriceTable({
  scene,
  chosen,
  onChoose,
}: {
  readonly scene: Scene;
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}) {
  const { t, len } = useSpeech();
  const { book } = scene;
  const columns: readonly GridColDef<PriceItem>[] = [
    {
      field: 'name',
      headerName: t('book.name'),
      flex: 1,
      minWidth: 180,
      renderCell: ({ row }) => (
        <Button size="small" variant="text" onClick={() => onChoose(row.id)} aria-pressed={row.id === chosen}>
          {row.name}
        </Button>
      ),
    },
    {
      field: 'group',
      headerName: t('book.group'),
      width: 120,
      valueGetter: (_value, row) => t(`book.group.${row.group}`),
    },
    {
      field: 'thickness',
      headerName: t('book.thick'),
      type: 'number',
      width: 96,
      renderCell: ({ row }) => (
        <span className="figures">{row.thickness > 0 ? len(row.thickness, row.thickness % 1 === 0 ? 0 : 1) : '–'}</span>
      ),
    },
    {
      field: 'price',
      headerName: t('book.price'),
      type: 'number',
      width: 120,
      valueGetter: (_value, row) => priceOf(row) ?? -1,
      renderCell: ({ row }) => {
        const price = priceOf(row);
        return <span className="figures">{price === null ? '–' : formatMoney(price, book.currency)}</span>;
      },
    },
    { field: 'priceDate', headerName: t('book.date'), width: 104 },
    { field: 'supplier', headerName: t('book.supplier'), width: 150 },
  ];
  return (
    <Grid
      label={t('book.title')}
      find={t('book.find')}
      rows={[...book.items]}
      columns={columns}
      getRowId={(item) => item.id}
      getRowClassName={({ row }) => (row.id === chosen ? 'chosen' : '')}
    />
  );
}

/** Adds a material, moves the prices of a group, and opens the one that is chosen. */
export function PriceEditor({
  scene,
  chosen,
  onChoose,
}: {
  readonly scene: Scene;
  readonly chosen: string | null;
  readonly onChoose: (id: string | null) => void;
}) {
  const { t } = useSpeech();
  const { book } = scene;
  const item = chosen === null ? null : materialOf(book, chosen);
  const put = (made: PriceItem): void => {
    void changePrice(made).then((done) => {
      if (done) onChoose(made.id);
    });
  };
  return (
    <>
      <div className="row wrap">
        <Button onClick={() => put(blankMaterial(book.items, t('book.newName'), today()))}>{t('book.add')}</Button>
        {item && <Button onClick={() => put(copied(item, book.items))}>{t('book.copy')}</Button>}
      </div>
      {item ? (
        <ItemFields
          key={item.id}
          item={item}
          used={materialsOf(scene.project).has(item.id)}
          onRemoved={() => onChoose(null)}
        />
      ) : (
        <p className="soft">{t('book.pick')}</p>
      )}
      <UsualHardware book={book} />
      <BookFile book={book} name={scene.project.id} />
      <Level />
    </>
  );
}

/** One material with everything that is known of it; what is changed counts at once, in every build that uses this price book. */
function ItemFields({
  item,
  used,
  onRemoved,
}: {
  readonly item: PriceItem;
  /** This build is made of it: it cannot go. */
  readonly used: boolean;
  readonly onRemoved: () => void;
}) {
  const { t } = useSpeech();
  const put: Put = (changes) => {
    void changeMaterial(item.id, typeof changes === 'function' ? changes : () => changes);
    return null;
  };
  const pack = item.pack;
  return (
    <section className="section stack" aria-label={item.name}>
      <TextEntry label={t('book.name')} value={item.name} onTake={(name) => put({ name })} />
      <div className="fields two">
        <PickField
          label={t('book.group')}
          value={item.group}
          choices={GROUPS.map((value) => ({ value, text: t(`book.group.${value}`) }))}
          onPick={(group) => put({ group })}
        />
        <TextEntry label={t('book.supplier')} value={item.supplier} onTake={(supplier) => put({ supplier })} />
        <LengthField label={t('book.thickness')} value={item.thickness} onTake={(thickness) => put({ thickness })} />
        <LengthField label={t('book.width')} value={item.width} onTake={(width) => put({ width })} />
        <TextEntry label={t('book.soldAs')} value={item.soldAs} mayBeEmpty onTake={(soldAs) => put({ soldAs })} />
        <PickField
          label={t('book.hatch')}
          value={item.hatch}
          choices={HATCHES.map((value) => ({ value, text: t(`book.hatch.${value}`) }))}
          onPick={(hatch) => put({ hatch })}
        />
        <NumberField
          label={t('book.density')}
          value={item.density}
          least={0}
          most={10_000}
          onTake={(density) => put({ density })}
        />
        <NumberField
          label={t('book.conductivity')}
          value={item.conductivity}
          least={0}
          most={500}
          onTake={(conductivity) => put({ conductivity })}
        />
        <NumberField
          label={t('book.cure')}
          value={item.cureHours}
          least={0}
          most={2000}
          onTake={(cureHours) => put({ cureHours })}
        />
        <NumberField
          label={t('book.coverage')}
          value={item.coverage ?? null}
          least={0.5}
          most={100}
          onTake={(coverage) => put({ coverage })}
        />
      </div>
      <Check label={t('book.grain')} checked={item.grain} onCheck={(grain) => put({ grain })} />
      {item.stocks.length > 0 && item.thickness === 0 && <p className="small needs">{t('book.noThickness')}</p>}
      <MaterialData item={item} put={put} />
      <Sizes item={item} put={put} />
      <div className="fields three">
        <PickField
          label={t('book.pack')}
          value={pack?.unit ?? 'none'}
          choices={PACKS.map((value) => ({ value, text: t(`book.pack.${value}`) }))}
          onPick={(unit) =>
            put({ pack: unit === 'none' ? null : { contents: pack?.contents ?? 1, price: pack?.price ?? 0, unit } })
          }
        />
        {pack && (
          <NumberField
            label={t('book.contents')}
            value={pack.contents}
            least={0.01}
            most={100_000}
            onTake={(contents) => put((now) => ({ pack: now.pack && { ...now.pack, contents } }))}
          />
        )}
        {pack && (
          <MoneyField
            label={t('book.price')}
            showLabel
            minor={pack.price}
            onTake={(price) => put((now) => ({ pack: now.pack && { ...now.pack, price }, priceDate: today() }))}
          />
        )}
      </div>
      <Fastening item={item} put={put} />
      <HardwareFields item={item} put={put} />
      <div>
        <Button
          variant="text"
          disabled={used}
          aria-label={t('book.removeOf', { name: item.name })}
          onClick={() =>
            void removePrice(item.id).then((done) => {
              if (done) onRemoved();
            })
          }
        >
          {t('common.remove')}
        </Button>
        {used && <span className="small soft"> {t('book.used')}</span>}
      </div>
    </section>
  );
}

/** Changes a material: by what it is when the change is made, where that matters. */
type Put = (changes: Partial<PriceItem> | ((now: PriceItem) => Partial<PriceItem>)) => Message | null;

interface PartProps {
  readonly item: PriceItem;
  readonly put: Put;
}

/** The sheets or lengths a material is sold in. */
function Sizes({ item, put }: PartProps) {
  const { t } = useSpeech();
  const { stocks } = item;
  const change = (id: string, changes: Partial<PriceItem['stocks'][number]>): Message | null =>
    put((now) => ({
      stocks: now.stocks.map((own) => (own.id === id ? { ...own, ...changes } : own)),
      ...(changes.price === undefined ? {} : { priceDate: today() }),
    }));
  const freeId = (): string => {
    let number = stocks.length + 1;
    while (stocks.some(({ id }) => id === `${item.id}-${number}`)) number += 1;
    return `${item.id}-${number}`;
  };
  return (
    <div className="stack">
      <h2>{t('book.sizes')}</h2>
      {stocks.map((stock, i) => (
        <div key={stock.id} className="row at-end">
          <LengthField
            label={t('book.length')}
            value={stock.length}
            onTake={(length) => change(stock.id, { length })}
          />
          <LengthField label={t('book.width')} value={stock.width} onTake={(width) => change(stock.id, { width })} />
          <MoneyField
            label={t('book.price')}
            showLabel
            minor={stock.price}
            onTake={(price) => change(stock.id, { price })}
          />
          <Button
            size="small"
            variant="text"
            aria-label={t('book.removeSize', { number: i + 1 })}
            onClick={() => put((now) => ({ stocks: now.stocks.filter(({ id }) => id !== stock.id) }))}
          >
            {t('common.remove')}
          </Button>
        </div>
      ))}
      <div>
        <Button
          size="small"
          onClick={() =>
            put((now) => ({
              stocks: [...now.stocks, { id: freeId(), length: 2500, width: 1250, price: 0, quantity: null }],
            }))
          }
        >
          {t('book.addSize')}
        </Button>
      </div>
    </div>
  );
}

/** What a screw or brad is: what it holds in, how thick and how long. */
function Fastening({ item, put }: PartProps) {
  const { t } = useSpeech();
  const { fastener } = item;
  if (item.group !== 'fixing') return null;
  return (
    <div className="fields three">
      <PickField
        label={t('book.fastener')}
        value={fastener?.kind ?? 'none'}
        choices={FASTENERS.map((value) => ({ value, text: t(`book.fastener.${value}`) }))}
        onPick={(kind) =>
          put({
            fastener:
              kind === 'none' ? null : { kind, diameter: fastener?.diameter ?? 4, length: fastener?.length ?? 30 },
          })
        }
      />
      {fastener && (
        <NumberField
          label={t('book.diameter')}
          value={fastener.diameter}
          least={1}
          most={20}
          onTake={(diameter) => put((now) => ({ fastener: now.fastener && { ...now.fastener, diameter } }))}
        />
      )}
      {fastener && (
        <LengthField
          label={t('book.length')}
          value={fastener.length}
          onTake={(length) => put((now) => ({ fastener: now.fastener && { ...now.fastener, length } }))}
        />
      )}
    </div>
  );
}

/** All prices of a group, or all there are, dearer or cheaper by so many per cent. */
function Level() {
  const { t } = useSpeech();
  const [group, setGroup] = useState<'all' | (typeof GROUPS)[number]>('all');
  const [percent, setPercent] = useState(0);
  return (
    <section className="section stack">
      <h2>{t('book.level')}</h2>
      <div className="fields two-and-button">
        <PickField
          label={t('book.group')}
          value={group}
          choices={(['all', ...GROUPS] as const).map((value) => ({ value, text: t(`book.group.${value}`) }))}
          onPick={(value) => {
            setGroup(value);
            return null;
          }}
        />
        <NumberField
          label={t('book.percent')}
          value={percent}
          least={-90}
          most={900}
          onTake={(value) => {
            setPercent(value);
            return null;
          }}
        />
        <Button
          disabled={percent === 0}
          onClick={() =>
            void reprice({ group: group === 'all' ? null : group, factor: 1 + percent / 100, date: today() }).then(
              (done) => {
                if (done) setPercent(0);
              },
            )
          }
        >
          {t('book.move')}
        </Button>
      </div>
    </section>
  );
}
