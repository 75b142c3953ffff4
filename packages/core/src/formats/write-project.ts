import { PROJECT_VERSION, type PriceBook, type Project, type ProjectFile } from '../document/schema.js';

/** The project and its price book as one open file. */
export function projectFileText(project: Project, priceBook: PriceBook): string {
  const file: ProjectFile = { format: 'nest-plank-file', version: PROJECT_VERSION, project, priceBook };
  return `${JSON.stringify(file, null, 1)}\n`;
}
