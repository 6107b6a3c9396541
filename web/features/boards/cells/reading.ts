import { createContext, useContext } from 'react'
import type { Usage } from '#core/boards/kind.ts'

/** By what cells are read: apart from all else of a board, since thousands of them are drawn, and anew when it changes. */
export interface Reading {
  readonly slug: string
  readonly timeZone: string
  readonly usage: Usage
}

export const ReadingContext = createContext<Reading | undefined>(undefined)

export function useReading(): Reading {
  const reading = useContext(ReadingContext)
  if (reading === undefined) throw new Error('no board is open')
  return reading
}
