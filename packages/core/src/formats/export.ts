/** Writers of drawings and lists; apart from the readers because their libraries are large. */
export { cutListCsv, partDxf, partSvg } from './write.js';
export { cutDiagramsPdf, type PdfFonts } from './cut-pdf.js';
export { surveySheetPdf } from './survey-pdf.js';
