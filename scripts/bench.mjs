// Builds what is out of date and runs the measurements: of speed, or with `accuracy` of the survey.
import { fileURLToPath } from 'node:url';
import { prepare, run } from './prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
prepare(root);
run(process.execPath, [process.argv[2] === 'accuracy' ? 'bench/accuracy.mjs' : 'bench/run.mjs'], { cwd: root });
