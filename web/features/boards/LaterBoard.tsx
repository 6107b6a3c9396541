import type { ComponentProps } from 'react'
import { later, LaterScreen } from '../../ui/later.tsx'
import type { BoardScreen } from './BoardScreen.tsx'
import type { RowScreen } from './row/RowScreen.tsx'

const board = later(async () => (await import('./BoardScreen.tsx')).BoardScreen)
const row = later(async () => (await import('./row/RowScreen.tsx')).RowScreen)

/** A board comes in a part of its own: most places are none. */
export const LaterBoard = (props: ComponentProps<typeof BoardScreen>) => (
  <LaterScreen part={board} given={props} waiting={<main aria-busy />} />
)

export const LaterRow = (props: ComponentProps<typeof RowScreen>) => (
  <LaterScreen part={row} given={props} waiting={<div aria-busy />} />
)
