import { bySoftware } from '../room/by-software.js';

// asked away from the page: the first picture of a session wakes whatever draws, and that takes its time
const ink = typeof OffscreenCanvas === 'undefined' ? null : new OffscreenCanvas(1, 1).getContext('webgl2');
self.postMessage(ink && bySoftware(ink));
