import { throughDay } from '#contract/dates.ts'

/** The year in which the page was opened is the one that need not be said. */
const openedAt = Date.now()

const dayFormat = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const yearFormat = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
const exactFormat = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'long' })

/** A day as people say it, in the reader's own time zone, with the exact instant on hover. */
export function Day({ at }: { readonly at: number }) {
  const sameYear = new Date(at).getFullYear() === new Date(openedAt).getFullYear()
  return (
    <time dateTime={new Date(at).toISOString()} title={exactFormat.format(at)}>
      {(sameYear ? dayFormat : yearFormat).format(at)}
    </time>
  )
}

const timeFormat = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
const longDayFormat = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  year: 'numeric',
})

export const Time = ({ at }: { readonly at: number }) => (
  <time dateTime={new Date(at).toISOString()} title={exactFormat.format(at)}>
    {timeFormat.format(at)}
  </time>
)

/** A day as a heading. */
export const dayName = (at: number): string => longDayFormat.format(at)

/** An end: the last day that is still included, in the workspace's time zone. */
export function Through({ until, timeZone }: { readonly until: number; readonly timeZone: string }) {
  return (
    <time dateTime={new Date(until).toISOString()} title={`ends ${exactFormat.format(until)}`}>
      through {throughDay(until, timeZone, openedAt)}
    </time>
  )
}
