import { SaxesParser } from 'saxes';
import { unreadable } from '../http/problem';

/** What is told of an XML document, piece by piece, with prefixes as they stand. */
export interface XmlHandler {
  open?(name: string, attributes: Readonly<Record<string, string>>): void;
  close?(name: string): void;
  text?(text: string): void;
}

/** Deeper than any spreadsheet goes, and more than any of its elements has: both would be held in memory. */
const MOST_DEPTH = 100;
const MOST_ATTRIBUTES = 500;

/**
 * Goes through an XML document and keeps nothing of it, so that a large one costs no more than its text, and whoever listens
 * may stop by throwing.
 * @throws Problem where it declares a document type, for what is declared there could unfold without end; Error where it is
 * no XML, or goes deeper than a spreadsheet does
 */
export function readXml(document: string, { open, close, text }: XmlHandler): void {
  if (document.includes('<!DOCTYPE')) {
    throw unreadable(
      'This spreadsheet holds declarations that it should not have. Save it again as XLSX or CSV.',
    );
  }
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  let depth = 0;
  let attributes = 0;
  parser.on('attribute', () => {
    if (++attributes > MOST_ATTRIBUTES) throw new Error('too many attributes');
  });
  parser.on('opentag', (tag) => {
    if (++depth > MOST_DEPTH) throw new Error('too deep');
    attributes = 0;
    open?.(tag.name, tag.attributes);
  });
  parser.on('closetag', ({ name }) => {
    depth--;
    close?.(name);
  });
  if (text) {
    parser.on('text', text);
    parser.on('cdata', text);
  }
  parser.write(document).close();
}
