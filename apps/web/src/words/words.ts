export { speechFor, tell, type Params, type Speech } from './speech.js';
