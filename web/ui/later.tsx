import {
  type ComponentType,
  type ReactNode,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from 'react'

/** What is loaded at most once. Read where it is there already; else it comes. */
export interface Later<P> {
  readonly load: () => Promise<ComponentType<P>>
  loaded: ComponentType<P> | undefined
}

export function later<P>(load: () => Promise<ComponentType<P>>): Later<P> {
  const part: Later<P> = {
    loaded: undefined,
    load: async () => {
      part.loaded ??= await load()
      return part.loaded
    },
  }
  return part
}

/** A part that comes when it is wanted, and by itself once the page has nothing else to do. */
export function useLater<P>(part: Later<P>): readonly [ComponentType<P> | undefined, () => void] {
  const [, setThere] = useState(part.loaded !== undefined)
  // Where it cannot be fetched now, whoever wants it tries again.
  const want = useCallback(
    () =>
      void part.load().then(
        () => setThere(true),
        () => {},
      ),
    [part],
  )
  useEffect(() => afterAWhile(want), [want])
  return [part.loaded, want]
}

interface ScreenProps<P> {
  readonly part: Later<P>
  readonly given: P
  readonly waiting: ReactNode
}

/**
 * What comes in a part of its own, drawn once it is there. React would hold back for a third of a second what waits for
 * its part in a Suspense.
 */
export function LaterScreen<P extends object>({ part, given, waiting }: ScreenProps<P>): ReactNode {
  const [, setThere] = useState(false)
  const [fault, setFault] = useState<Error>()
  useEffect(() => {
    const fail = (reason: unknown) => setFault(reason instanceof Error ? reason : new Error(String(reason)))
    part.load().then(() => setThere(true), fail)
  }, [part])
  if (fault !== undefined) throw fault
  const { loaded: Part } = part
  return Part === undefined ? waiting : <Part {...given} />
}

interface Opened<P> {
  readonly Part: ComponentType<P> | undefined
  readonly isOpen: boolean
  readonly open: () => void
  readonly close: () => void
  readonly want: () => void
}

/** The same of a part that is opened and shut: it can be opened before it has come. */
export function useOpenedLater<P>(part: Later<P>): Opened<P> {
  const [isOpen, setOpen] = useState(false)
  const [Part, want] = useLater(part)
  const open = useCallback(() => {
    want()
    setOpen(true)
  }, [want])
  return { Part, isOpen, open, close: () => setOpen(false), want }
}

/** Long after the first look: not every browser tells when it is idle. */
function afterAWhile(act: () => void): () => void {
  const timer = setTimeout(act, 2500)
  return () => clearTimeout(timer)
}

export interface Opening {
  /** Opened by whoever wanted it before it was there. */
  readonly isOpen: boolean
}

interface Props<P> {
  readonly part: Later<P & Opening>
  readonly given: P
  readonly className: string
  readonly children: ReactNode
}

/** The button of something that opens, until that has come: it looks and acts alike, and keeps the focus. */
export function LaterButton<P>({ part, given, className, children }: Props<P>) {
  const [Part, want] = useLater(part)
  const [isOpen, setOpen] = useState(false)
  const holder = useRef<HTMLDivElement>(null)
  const hadFocus = useRef(false)
  useLayoutEffect(() => {
    if (Part !== undefined && hadFocus.current) holder.current?.querySelector('button')?.focus()
    hadFocus.current = false
  }, [Part])
  return (
    <div ref={holder} className="contents">
      {Part === undefined ? (
        <button
          type="button"
          aria-haspopup="menu"
          aria-expanded={false}
          className={className}
          onPointerEnter={want}
          onFocus={() => {
            hadFocus.current = true
            want()
          }}
          onBlur={() => (hadFocus.current = false)}
          onClick={() => {
            setOpen(true)
            want()
          }}
        >
          {children}
        </button>
      ) : (
        <Part {...given} isOpen={isOpen} />
      )}
    </div>
  )
}
