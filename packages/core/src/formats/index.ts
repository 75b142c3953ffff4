export { FormatError, readCutJob, readJson, readOperations, readProjectFile } from './read.js';
export { projectFileText } from './write-project.js';
export { jsonSchemas } from './schema-json.js';
export { reportOf, type Report } from './report.js';
export { migrateFile, migratePriceItem, migrateProject } from '../document/migrate/index.js';
export { openStored, type Opened } from './stored.js';
