export * from './projects.js';
export * from './prices.js';
export * from './devices.js';
export * from './acceptance.js';
export * from './limits.js';
