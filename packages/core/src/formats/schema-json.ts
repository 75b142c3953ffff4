import { z } from 'zod';
import { cutJobSchema, cutPlanSchema } from '../cutting/job/job.js';
import { OPERATION_PAYLOADS } from '../document/operation.js';
import { PROJECT_VERSION, projectFileSchema } from '../document/schema.js';

/** The JSON Schemas that are published, by file name. */
export function jsonSchemas(): Record<string, unknown> {
  const operations = z.array(
    z.union(
      Object.entries(OPERATION_PAYLOADS).map(([name, payload]) => z.strictObject({ name: z.literal(name), payload })),
    ),
  );
  const made = (schema: z.ZodType, title: string): unknown => ({ title, ...z.toJSONSchema(schema, { io: 'input' }) });
  return {
    'nest-plank-file.schema.json': made(projectFileSchema, `Nest Plank project file, version ${PROJECT_VERSION}`),
    'operations.schema.json': made(operations, `Nest Plank operations, version ${PROJECT_VERSION}`),
    'cut-job.schema.json': made(cutJobSchema, 'Cut job, version 1'),
    'cut-plan.schema.json': made(cutPlanSchema, 'Cut plan, version 1'),
  };
}
