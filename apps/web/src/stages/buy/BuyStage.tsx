import './buy.css';
import { lazy, Suspense, useState } from 'react';
import type { PriceItem } from '@nestplank/core/document';
import { materialOf } from '@nestplank/core/materials';
import { formatMoney } from '@nestplank/core/words';
import { api } from '../../state/api.js';
import { act, changePrice, notify, useSession } from '../../state/session.js';
import { useScene } from '../../state/scene.js';
import { FileButton } from '../../kit/FileButton.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { TabStrip } from '../../kit/TabStrip.js';
import { PriceEditor, PriceTable } from './PriceBook.js';
import { useSpeech } from '../../words/use-speech.js';

const TABS = ['list', 'book'] as const;
const PhaseChart = lazy(() => import('./PhaseChart.js'));

/** So many of what is left of sheets are named. */
const OFFCUTS = 3;

/** A material with another price for one sheet size or for its pack. */
function priced(item: PriceItem, line: string, price: number): PriceItem {
  const priceDate = new Date().toISOString().slice(0, 10);
  if (item.stocks.some((stock) => stock.id === line))
    return {
      ...item,
      priceDate,
      stocks: item.stocks.map((stock) => (stock.id === line ? { ...stock, price } : stock)),
    };
  return item.pack
    ? { ...item, priceDate, pack: { ...item.pack, price } }
    : { ...item, priceDate, stocks: item.stocks.map((stock) => ({ ...stock, price })) };
}

/** Buy: what to buy, where the quantity comes from, what it costs and weighs. */
export default function BuyStage() {
  const { t, said, sawn } = useSpeech();
  const scene = useScene();
  const id = useSession((s) => s.id);
  const [tab, setTab] = useState<(typeof TABS)[number]>('list');
  const [chosen, setChosen] = useState<string | null>(null);
  if (!scene) return <main className="stage" />;
  const { shopping, mass } = scene.derived;
  const { budget } = scene.project.settings;
  const money = (minor: number): string => formatMoney(minor, shopping.currency);
  /** A surface or a unit that something is bought for. */
  const placeName = (of: string): string =>
    scene.project.layout.units.find((unit) => unit.id === of)?.name ??
    (of === '' ? t('buy.elsewhere') : t(`surface.${of as 'floor'}`));
  /** Whole where it is, else to a tenth. */
  const amountText = (amount: number): string =>
    Math.abs(amount - Math.round(amount)) < 0.05 ? String(Math.round(amount)) : amount.toFixed(1);
  const nameOf = (id: string, kind: 'unit' | 'surface'): string =>
    kind === 'unit'
      ? (scene.project.layout.units.find((unit) => unit.id === id)?.name ?? id)
      : t(`surface.${id as 'floor'}`);
  const tabs = (
    <TabStrip label={t('buy.tabs')} tabs={TABS} open={tab} prefix="buy.tab." panel="buy-panel" onOpen={setTab} />
  );
  if (tab === 'book')
    return (
      <main className="stage">
        <div className="board on-paper" role="tabpanel" id="buy-panel" aria-labelledby="buy-panel-book">
          {tabs}
          <div className="inset-all">
            <PriceTable scene={scene} chosen={chosen} onChoose={setChosen} />
          </div>
        </div>
        <div className="side">
          <PriceEditor scene={scene} chosen={chosen} onChoose={setChosen} />
        </div>
      </main>
    );
  return (
    <main className="stage">
      <div className="board on-paper" role="tabpanel" id="buy-panel" aria-labelledby="buy-panel-list">
        {tabs}
        {shopping.lines.length === 0 ? (
          <p className="empty">{t('buy.none')}</p>
        ) : (
          <div className="inset-all">
            <h2>{t('buy.what')}</h2>
            <table className="plain buy">
              <thead>
                <tr>
                  <th>{t('buy.item')}</th>
                  <th className="optional">{t('buy.from')}</th>
                  <th className="optional">{t('buy.size')}</th>
                  <th className="number">{t('buy.quantity')}</th>
                  <th className="number narrow-field">{t('buy.each')}</th>
                  <th className="number">{t('buy.sum')}</th>
                </tr>
              </thead>
              <tbody>
                {shopping.lines.map((line) => {
                  const item = materialOf(scene.book, line.material);
                  const thing = scene.project.things?.find(({ id }) => line.id === `thing:${id}`);
                  return (
                    <tr key={line.id}>
                      <td>
                        {line.name}{' '}
                        <span className="soft small">
                          ·{' '}
                          {[...new Set(line.shares.map(({ phase }) => phase))]
                            .map((phase) => t(`phase.${phase}`))
                            .join(', ')}
                        </span>
                        <br />
                        <span className="soft small">
                          {said(line.why)}
                          {line.left !== null && line.left > 0 && (
                            <>
                              {' · '}
                              {t('buy.leftOver', { left: amountText(line.left) })}
                            </>
                          )}
                          {line.offcuts && line.offcuts.length > 0 && (
                            <>
                              {' · '}
                              {t(line.offcuts.length > OFFCUTS ? 'buy.offcutsMore' : 'buy.offcuts', {
                                sizes: line.offcuts
                                  .slice(0, OFFCUTS)
                                  .map(({ length, width }) =>
                                    line.unit === 'bar' ? sawn(length) : `${sawn(length)} × ${sawn(width)}`,
                                  )
                                  .join(', '),
                                more: line.offcuts.length - OFFCUTS,
                              })}
                            </>
                          )}
                          {line.low && (
                            <>
                              {' · '}
                              <b className="needs">! {t('buy.low')}</b>
                            </>
                          )}
                        </span>
                        {line.shares.length > 1 && (
                          <>
                            <br />
                            <span className="soft small figures">
                              {line.shares
                                .map(({ of, amount }) => `${placeName(of)} ${amountText(amount)}`)
                                .join(' · ')}
                            </span>
                          </>
                        )}
                      </td>
                      <td className="optional soft">{line.supplier}</td>
                      <td className="optional figures">{said(line.size)}</td>
                      <td className="number size-18">{line.quantity}</td>
                      <td className="number">
                        {thing && (
                          <MoneyField
                            label={t('buy.priceOf', { name: line.name })}
                            minor={line.each}
                            onTake={(price) => void act({ name: 'putThing', payload: { thing: { ...thing, price } } })}
                          />
                        )}
                        {item && (
                          <MoneyField
                            label={t('buy.priceOf', { name: line.name })}
                            minor={line.each}
                            onTake={(price) => void changePrice(priced(item, line.id, price))}
                          />
                        )}
                      </td>
                      <td className="number">{money(line.total)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
        )}
      </div>
      <div className="side">
        <section className="stack">
          <div className="row apart at-baseline">
            <h2>{t('buy.total')}</h2>
            <span className="figures size-30 strong">{money(shopping.total)}</span>
          </div>
          <div className="row apart at-end">
            <div className="narrow-field">
              <MoneyField
                label={t('buy.setBudget')}
                showLabel
                minor={budget}
                onTake={(minor) => {
                  const refused = act({ name: 'changeSettings', payload: { changes: { budget: minor } } });
                  if (refused) notify(said(refused), 'trouble');
                }}
              />
            </div>
            {budget > 0 && (
              <span className={`figures ${shopping.total > budget ? 'needs' : 'soft'}`}>
                {money(Math.abs(budget - shopping.total))} {t(shopping.total > budget ? 'buy.over' : 'buy.left')}
              </span>
            )}
          </div>
          {id && shopping.lines.length > 0 && (
            <FileButton address={api.fileAddress(id, 'shopping')}>{t('buy.print')}</FileButton>
          )}
          {shopping.nowhere.length > 0 && (
            <p className="soft small">{t('buy.nowhere', { names: shopping.nowhere.join(', ') })}</p>
          )}
          {shopping.unpriced.length > 0 && (
            <p className="needs small">{t('buy.unpriced', { names: shopping.unpriced.join(', ') })}</p>
          )}
        </section>
        {shopping.byPhase.length > 0 && (
          <section className="section">
            <h2>{t('buy.chart')}</h2>
            <Suspense fallback={<div className="chart-space" />}>
              <PhaseChart
                phases={shopping.byPhase.map(({ phase, total }) => ({ name: t(`phase.${phase}`), total }))}
                currency={shopping.currency}
              />
            </Suspense>
          </section>
        )}
        {mass.of.length > 0 && (
          <section className="section">
            <div className="row apart at-baseline">
              <h2>{t('buy.mass')}</h2>
              <span className="figures size-22 strong">{t('buy.kg', { kg: mass.total.toFixed(0) })}</span>
            </div>
            <table className="plain">
              <tbody>
                {mass.of.map((item) => (
                  <tr key={item.id}>
                    <td>{nameOf(item.id, item.kind)}</td>
                    <td className="number">{t('buy.kg', { kg: item.kg.toFixed(1) })}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {mass.unknown.length > 0 && (
              <p className="small below-little">
                {t('weight.unknown', {
                  materials: mass.unknown.map((id) => materialOf(scene.book, id)?.name ?? id).join(', '),
                })}
              </p>
            )}
            <p className="small soft below-little">{t('buy.massCaution')}</p>
          </section>
        )}
      </div>
    </main>
  );
}
