/**
 * Cells of tables for spreadsheets. A text that a spreadsheet would take for a formula gets an apostrophe before
 * it, which shows it as text; reading takes it off again, so that what went out comes back as it was.
 */
export const harmless = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text)

export const asWritten = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)
