import { textFilters, textKind } from './text.ts'

/** Lines end alike; what steers a terminal is no text. */
const inLines = (text: string): string =>
  text
    .replaceAll(/\r\n?/g, '\n')
    .replaceAll(/[^\P{Cc}\n\t]+/gu, '')
    .trim()

/** CommonMark, shown plainly. */
export const longText = textKind({ kind: 'long text', longest: 50_000, read: inLines, filters: textFilters })
