// Builds what is out of date and runs the measurements: of speed, with `accuracy` of the survey, with `yardstick` of the cutting engine.
import { fileURLToPath } from 'node:url';
import { prepare, run } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
prepare(root);
const scripts = { accuracy: 'bench/accuracy.mjs', yardstick: 'bench/cutting/run.mjs' };
run(process.execPath, [scripts[process.argv[2]] ?? 'bench/run.mjs'], { cwd: root });
