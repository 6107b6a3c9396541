import { NoTable, readTable, type Table } from './table.ts'

/** Reads a file away from the page: a large one does not hold up what is on screen. */
export type Read = { readonly table: Table } | { readonly refused: string }

export interface ToRead {
  readonly bytes: ArrayBuffer
  /** Found out where nothing is said. */
  readonly encoding: string | undefined
  readonly mostRows: number
}

self.onmessage = ({ data: { bytes, ...how } }: MessageEvent<ToRead>) => {
  self.postMessage(answerTo(new Uint8Array(bytes), how))
}

function answerTo(bytes: Uint8Array, { encoding, mostRows }: Omit<ToRead, 'bytes'>): Read {
  try {
    return { table: readTable(bytes, mostRows, encoding) }
  } catch (error) {
    const instead = 'This file cannot be read as a table. Save it as CSV in your spreadsheet program.'
    return { refused: error instanceof NoTable ? error.message : instead }
  }
}
