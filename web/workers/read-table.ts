import { NoTable, readTable, type Table } from './table.ts'

/** Reads a file away from the page: a large one does not hold up what is on screen. */
export type Read = { readonly table: Table } | { readonly refused: string }

self.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => {
  self.postMessage(answerTo(new Uint8Array(data)))
}

function answerTo(bytes: Uint8Array): Read {
  try {
    return { table: readTable(bytes) }
  } catch (error) {
    const instead = 'This file cannot be read as a table. Save it as CSV in your spreadsheet program.'
    return { refused: error instanceof NoTable ? error.message : instead }
  }
}
