import { type ReactNode, useMemo } from 'react'
import { api } from '../api/api.ts'
import { datesFor, ReadersDates } from '../ui/dates.tsx'

/** Dates below are written as whoever is signed in has chosen. */
export function Dates({ children }: { readonly children: ReactNode }) {
  // Looks at what the screens have asked for, and asks nothing itself.
  const account = api.endpoints.session.useQueryState().data?.account
  const language = account?.language ?? 'en-GB'
  const timeZone = account?.timeZone ?? undefined
  const inWords = useMemo(() => datesFor(language, timeZone), [language, timeZone])
  return <ReadersDates value={inWords}>{children}</ReadersDates>
}
