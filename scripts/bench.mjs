// Builds what is out of date and runs the measurements.
import { fileURLToPath } from 'node:url';
import { prepare, run } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
prepare(root);
run(process.execPath, ['bench/run.mjs'], { cwd: root });
