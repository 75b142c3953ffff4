/**
 * Arrows run downward only: between the packages, and between the folders of the core as they are listed here from the
 * ground up. No circles of files, types included.
 */
const FOLDERS = [
  'numeric',
  'words',
  'document',
  'materials',
  'rules',
  'measure',
  'shell',
  'layers',
  'parts',
  'furniture',
  'lining',
  'layout',
  'cutting',
  'costing',
  'mass',
  'work',
  'derive',
  'formats',
  'practice',
];
const upward = FOLDERS.slice(0, -1).map((folder, i) => ({
  name: `core-${folder}`,
  severity: 'error',
  comment: `core/src/${folder} may use only the folders below it: ${FOLDERS.slice(0, i).join(', ') || 'none'}.`,
  from: { path: `^packages/core/src/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^packages/core/src/(${FOLDERS.slice(i + 1).join('|')})/` },
}));

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\?url$' } },
    ...upward,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|dist-types|node_modules)/|\\?raw$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
