/**
 * Cells of tables for spreadsheets. A text that a spreadsheet would take for a formula, also behind a line break, gets
 * an apostrophe before it, which shows it as text; reading takes it off again, so that what went out comes back as it
 * was, apostrophes of its own included.
 */
export const harmless = (text: string): string => text.replace(formula(''), "'")

export const asWritten = (cell: string): string => cell.replace(formula("'"), '')

const signs = '=+\\-@\\t\\r＝＋－＠'
const formula = (before: string): RegExp => new RegExp(`(?<=^|[\\r\\n])${before}(?='*[${signs}])`, 'g')
