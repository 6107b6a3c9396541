import { readFileSync } from 'node:fs'

/** How much of the processors' time other machines on the same hardware took, where this one says so. */
export interface Stolen {
  /** In order, without gaps. */
  readonly spans: readonly Span[]
  readonly stop: () => void
}

interface Span {
  /** Milliseconds since 1970. */
  readonly from: number
  readonly until: number
  /** From 0 to 1. */
  readonly share: number
}

const every = 500
/** Less is within what the clock of the machine can tell. */
const disturbed = 0.01

export function watchStolen(): Stolen {
  const spans: Span[] = []
  let last = ticks()
  const watching = setInterval(() => {
    const now = ticks()
    const share = (now.stolen - last.stolen) / Math.max(1, now.all - last.all)
    spans.push({ from: last.at, until: now.at, share })
    last = now
  }, every)
  return { spans, stop: () => clearInterval(watching) }
}

/** Nothing is stolen where there is no such file: the machine is nobody else's, or does not say. */
function ticks() {
  const at = Date.now()
  try {
    const [, ...counts] = (readFileSync('/proc/stat', 'utf8').split('\n')[0] ?? '').split(/ +/u)
    return { at, stolen: Number(counts[7]), all: counts.reduce((sum, each) => sum + Number(each), 0) }
  } catch {
    return { at, stolen: 0, all: 0 }
  }
}

/** Whether nothing was taken from half a second before something began until half a second after. */
export function isUndisturbed({ spans }: Stolen, at: number, took: number): boolean {
  const beside = spans.filter(span => span.until > at - every && span.from < at + took + every)
  return beside.length > 0 && beside.every(span => span.share <= disturbed)
}

/** Of the time between two instants. */
export function stolenShare({ spans }: Stolen, from: number, until: number): number {
  const meant = spans.filter(span => span.from >= from && span.until <= until)
  return meant.reduce((sum, span) => sum + span.share, 0) / Math.max(1, meant.length)
}
