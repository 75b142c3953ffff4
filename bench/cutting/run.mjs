// The yardstick of the cutting engine: drawn jobs of many kinds, judged by an independent referee, beside plain first-fit
// and general packing libraries. Prints the table and writes it into docs/performance.md. One thread throughout.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { cutJobSchema, loadProgram, searchPlans } from '@nestplank/core/cutting';
import * as jobs from './jobs.mjs';
import { firstFit, maximalRectangles, ruledRectangles } from './plain.mjs';
import { judge } from './referee.mjs';

const SCALE = Number(process.env.YARDSTICK_SCALE ?? 1);
const program = await loadProgram();
const count = (wanted) => Math.max(2, Math.round(wanted * SCALE));
const faults = [];
let first = 0;

/** Runs one job until proved or out of time; notes the price at each of the times. */
function run(kind, seed, job, times) {
  const open = { ...job };
  delete open.known;
  const started = performance.now();
  const seconds = () => (performance.now() - started) / 1000;
  const at = times.map(() => null);
  let last = null;
  for (const moment of searchPlans(cutJobSchema.parse(open), { steps: 1e12, seed: 1, program })) {
    const now = seconds();
    if (moment.step === 0) first = now;
    times.forEach((time, i) => {
      if (now > time && at[i] === null) at[i] = last ?? moment.plan;
    });
    last = moment.plan;
    if (now >= times[times.length - 1] || last.proved) break;
  }
  for (const fault of judge(job, last)) faults.push(`${kind} ${seed}: ${fault}`);
  return { plan: last, at: at.map((plan) => plan ?? last), seconds: seconds() };
}

const percent = (share) => `${(100 * share).toFixed(1)} %`;
const rows = [];
const row = (what, aim, found, met) => {
  rows.push({ what, aim, found, met });
  process.stdout.write(`${met ? 'met  ' : 'below'} ${what}: ${found} (aim ${aim})\n`);
};

function proved(kind, what, number, times, aims) {
  const results = Array.from({ length: number }, (_, i) => run(kind, i + 1, jobs[kind](i + 1), times));
  times.forEach((time, t) => {
    const share = results.filter((result) => result.at[t].proved).length / number;
    row(`${what}, ${number} jobs: bound met in ${time} s`, percent(aims[t]), percent(share), share >= aims[t]);
  });
}

proved('joinery', 'Joinery as it comes', count(60), [0.2], [0.85]);
proved('tight', 'Joinery, 87 to 95.5 % full', count(60), [2, 10], [0.95, 1]);
proved('slack', '2 to 8 sheets sawn apart, 2.5 % slack', count(40), [2, 10], [0.6, 0.75]);
proved('known', '2 to 8 sheets sawn apart, no slack', count(40), [2], [0.6]);
proved('literature', 'Ten classes of the literature', count(100), [2], [0.9]);
proved('knownBars', 'Whole bars sawn apart', count(60), [2], [0.9]);

{
  const number = count(40);
  const results = Array.from({ length: number }, (_, i) => run('frames', i + 1, jobs.frames(i + 1), [2]).plan);
  const over = results.reduce((sum, plan) => sum + plan.cost / plan.bound - 1, 0) / number;
  row(
    `Bars of larger frames, 50 to 190 pieces, ${number} jobs: over the bound in 2 s`,
    '0.5 %',
    `${(100 * over).toFixed(2)} %`,
    over <= 0.005,
  );
  const fills = Array.from({ length: number }, (_, i) => {
    const job = jobs.knownFrames(i + 1);
    return run('knownFrames', i + 1, job, [2]).plan.cost <= job.known;
  });
  const share = fills.filter(Boolean).length / number;
  row(
    `Whole bars sawn into 48 to 60 pieces, ${number} jobs: the known fill in 2 s`,
    '90 %',
    percent(share),
    share >= 0.9,
  );
}
{
  const number = count(60);
  const results = Array.from({ length: number }, (_, i) => run('bars', i + 1, jobs.bars(i + 1), [2]).plan);
  const over = results.reduce((sum, plan) => sum + plan.cost / plan.bound - 1, 0) / number;
  row(
    `Bars of one or several lengths, ${number} jobs: over the bound in 2 s`,
    '0.5 %',
    `${(100 * over).toFixed(2)} %`,
    over <= 0.005,
  );
}
{
  const number = count(40);
  let [ours, plain, library] = [0, 0, 0];
  for (let seed = 1; seed <= number; seed += 1) {
    const job = jobs.multi(seed);
    ours += run('multi', seed, job, [2]).plan.cost;
    plain += firstFit(job, 2);
    library += Math.min(...[maximalRectangles(job), ruledRectangles(job)].filter((price) => price !== null));
  }
  row(
    `Several sizes and offcuts, ${number} jobs: cheaper in 2 s than first-fit`,
    '3 %',
    percent(1 - ours / plain),
    1 - ours / plain >= 0.03,
  );
  row(
    `The same: cheaper than the best library on its best size`,
    '6 %',
    percent(1 - ours / library),
    1 - ours / library >= 0.06,
  );
}
{
  const number = count(40);
  let worse = 0;
  for (let seed = 1; seed <= number; seed += 1) {
    const job = jobs.tight(seed + 700);
    const plan = run('tight', seed + 700, job, [2]).plan;
    if (plan.cost > firstFit(job, 60, 6)) worse += 1;
  }
  row(`Worse than first-fit over six orders, ${number} jobs`, 'never', String(worse), worse === 0);
}
{
  const number = count(20);
  let [free, straight] = [0, 0];
  for (let seed = 1; seed <= number; seed += 1) {
    const job = jobs.tapered(seed);
    free += run('tapered', seed, job, [3]).plan.sheets.length;
    const parts = job.parts.map((part) => ({ ...part, outline: undefined }));
    straight += run('tapered as rectangles', seed, { ...job, method: 'guillotine', parts }, [3]).plan.sheets.length;
  }
  row(
    `Tapered sides, ${number} jobs: sheet area under the guillotine plan's in 3 s`,
    '6 %',
    percent(1 - free / straight),
    1 - free / straight >= 0.06,
  );
}
{
  let slowest = 0;
  for (let seed = 1; seed <= count(20); seed += 1) {
    const job = jobs.joinery(seed + 900);
    run(
      'joinery',
      seed + 900,
      { ...job, parts: [...job.parts, ...jobs.joinery(seed + 950).parts.map((p, i) => ({ ...p, id: `x${i}` }))] },
      [0.1],
    );
    slowest = Math.max(slowest, first);
  }
  row('First valid plan of up to 300 parts, slowest', '100 ms', `${(1000 * slowest).toFixed(0)} ms`, slowest < 0.1);
  const parts = Array.from({ length: 2000 }, (_, i) => ({
    id: `p${i}`,
    length: 200 + ((i * 97) % 1500),
    width: 60 + ((i * 53) % 540),
    quantity: 1,
    mayTurn: i % 2 === 0,
  }));
  const started = performance.now();
  run('2000 parts', 1, { ...jobs.joinery(1), trim: 0, parts }, [0.1]);
  const taken = (performance.now() - started) / 1000;
  row('2 000 different parts: a plan', 'under 10 s', `${taken.toFixed(1)} s`, taken < 10);
}
row(
  'Plans the referee refused, bounds above a known plan, false proofs',
  'none',
  String(faults.length),
  faults.length === 0,
);
for (const fault of faults.slice(0, 20)) process.stdout.write(`  ${fault}\n`);

const table = [
  '<!-- cutting -->',
  '',
  '## Cutting',
  '',
  'Drawn jobs (`bench/cutting/jobs.mjs`), judged by `bench/cutting/referee.mjs`, which shares no code with the engine. One thread, one run: `npm run yardstick`.',
  '',
  '| what | aim | found | |',
  '| --- | --- | --- | --- |',
  ...rows.map(({ what, aim, found, met }) => `| ${what} | ${aim} | ${found} | ${met ? 'met' : 'below'} |`),
  '',
  '<!-- /cutting -->',
].join('\n');
const path = fileURLToPath(new URL('../../docs/performance.md', import.meta.url));
if (SCALE >= 1) {
  const text = readFileSync(path, 'utf8');
  const cut = /<!-- cutting -->[\s\S]*<!-- \/cutting -->/;
  writeFileSync(path, cut.test(text) ? text.replace(cut, table) : `${text.trimEnd()}\n\n${table}\n`);
}
