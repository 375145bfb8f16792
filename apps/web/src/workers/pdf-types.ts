export type PaperSize = 'A4' | 'LETTER';
