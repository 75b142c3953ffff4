export { FormatError, readCutJob, readJson, readOperations, readProjectFile } from './read.js';
export { projectFileText } from './write-project.js';
export { jsonSchemas } from './schema-json.js';
export { reportOf } from './report.js';
export { migratePriceItem, migrateProject } from '../document/migrate/index.js';
export { openStored } from './stored.js';
