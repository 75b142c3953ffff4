/** Writers of drawings and lists; apart from the readers because their libraries are large. */
export { scheduleIcs } from './calendar-ics.js';
export { cutListCsv, partDxf, partSvg } from './write.js';
export { cutDiagramsPdf, legendOf } from './cut-pdf.js';
export { startPdf } from './pdf-tools.js';
export { surveySheetPdf } from './survey-pdf.js';
export { belongsTo, labelLines, labelsPdf } from './labels-pdf.js';
export { PAPERS, type Paper, TEMPLATE_PAGES, templatePages, tilesOf } from '../parts/tiles.js';
export { templatePdf } from './template-pdf.js';
export { sheetDxf, sheetSvg } from './sheet-files.js';
export { shoppingPdf } from './shopping-pdf.js';
export { partDxfR12, sheetDxfR12 } from './dxf-r12.js';
