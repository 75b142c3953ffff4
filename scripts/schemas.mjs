// Writes the published JSON Schemas from the definitions in the core. Build first.
import { writeFileSync } from 'node:fs';
import { jsonSchemas } from '@nestplank/core/formats';

for (const [name, schema] of Object.entries(jsonSchemas()))
  writeFileSync(new URL(`../docs/formats/${name}`, import.meta.url), `${JSON.stringify(schema, null, 1)}\n`);
