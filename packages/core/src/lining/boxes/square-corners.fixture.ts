import type { Project } from '../../document/schema.js';

/** The same vehicle with square corners in all of its openings, so that a box is as large as its opening. */
export const squareCorners = (project: Project): Project => ({
  ...project,
  survey: {
    ...project.survey,
    openings: project.survey.openings.map((opening) => ({ ...opening, cornerRadius: 0 })),
    readings: Object.fromEntries(
      Object.entries(project.survey.readings).filter(([address]) => !address.endsWith('/corner')),
    ),
  },
});
