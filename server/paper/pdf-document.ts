import { createRequire } from 'node:module';
import type Pdf from 'pdfkit';

const require = createRequire(import.meta.url);

/** A new PDF. The library is loaded when the first is made, since most threads that could make one make none. */
export function newDocument(options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument {
  const PDFDocument = require('pdfkit') as typeof Pdf;
  return new PDFDocument(options);
}
