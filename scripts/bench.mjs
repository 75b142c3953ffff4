// Builds what is out of date and runs the measurements: of speed and safekeeping, or what is named of them: `speed`,
// `safekeeping`, `accuracy` of the survey, `yardstick` of the cutting engine, `mutations --seed N --count M` of what the tests notice,
// `checks` for the ten slowest test files of the last `npm test`.
import { fileURLToPath } from 'node:url';
import { prepare, run } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
prepare(root);
const scripts = {
  speed: ['bench/run.mjs'],
  safekeeping: ['bench/safekeeping.mjs'],
  accuracy: ['bench/accuracy.mjs'],
  yardstick: ['bench/cutting/run.mjs'],
  mutations: ['bench/mutations.mjs'],
  checks: ['bench/checks.mjs'],
};
const wanted = scripts[process.argv[2]] ?? [...scripts.speed, ...scripts.safekeeping];
for (const script of wanted) run(process.execPath, [script, ...process.argv.slice(3)], { cwd: root });
