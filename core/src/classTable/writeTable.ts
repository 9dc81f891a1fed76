import Papa from 'papaparse';

/**
 * Rows as a file that spreadsheets open (RFC 4180), in UTF-8 with its mark. What a spreadsheet would take for a formula is
 * taken as text (OWASP, "CSV injection").
 */
export function tableFile(rows: readonly (readonly (string | number)[])[]): string {
  return `\ufeff${Papa.unparse(rows as (string | number)[][], { escapeFormulae: true })}\r\n`;
}
