export * from './projects.js';
export * from './prices.js';
