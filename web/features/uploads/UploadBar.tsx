import { useEffect, useRef, useState } from 'react'
import { counted, numberWords } from '#core/words/english.ts'
import { sizeWords } from '#core/words/sizes.ts'
import { useUploadsQuery } from '../../api/files.ts'
import { cancel, pause, resume } from '../../api/uploader.ts'
import { useHere } from '../../api/use-here.ts'
import { type AppDispatch, useAppDispatch, useAppSelector } from '../../store/store.ts'
import { addUploads, dropUploads, type UploadItem } from '../../store/uploads.ts'
import { Bar } from './Bar.tsx'
import { UploadLine } from './UploadLine.tsx'

/** What is on its way from here, at the foot of every page: how much of it is there, and each file by itself. */
export function UploadBar() {
  const { slug } = useHere()
  useLost(slug)
  const items = useAppSelector(state => state.uploads.items)
  const own = items.filter(each => each.slug === slug)
  const [isOpen, setOpen] = useState(false)
  useAskBeforeLeaving(items.some(each => each.state === 'going' || each.state === 'waiting'))
  const asks = own.some(each => each.state === 'asks' || each.state === 'refused')
  // What has to be decided is shown unasked.
  const opened = useRef(false)
  useEffect(() => {
    if (asks && !opened.current) setOpen(true)
    opened.current = asks
  }, [asks])
  if (own.length === 0) return null
  return (
    <section aria-label="Uploads" className="border-t border-base-content bg-base-100">
      <Head items={own} isOpen={isOpen} onOpen={setOpen} />
      {isOpen && (
        <ul
          aria-label="Files on their way"
          tabIndex={0}
          className="max-h-56 overflow-y-auto border-t border-base-300 px-4"
        >
          {own.map(item => (
            <UploadLine key={item.key} item={item} />
          ))}
        </ul>
      )}
    </section>
  )
}

interface HeadProps {
  readonly items: readonly UploadItem[]
  readonly isOpen: boolean
  readonly onOpen: (isOpen: boolean) => void
}

function Head({ items, isOpen, onOpen }: HeadProps) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { data: room } = useUploadsQuery(slug)
  const counts = countsOf(items)
  const sum = (of: (item: UploadItem) => number) => items.reduce((all, each) => all + of(each), 0)
  const [sent, size] = [sum(each => each.sent), sum(each => each.size)]
  const isOver = counts.open === 0
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-1.5 text-sm">
      <strong role="status">{wordsFor(counts, items.length)}</strong>
      {!isOver && <Bar label="All uploads" done={size === 0 ? 0 : sent / size} />}
      <span className="quiet tabular-nums">
        {sizeWords(sent)} of {sizeWords(size)}
      </span>
      {room?.left != null && room.left < nearlyFull && (
        <span className="text-warning">There is room for {sizeWords(room.left)} more in this workspace.</span>
      )}
      <span className="ml-auto flex gap-1.5">
        <ForAll items={items} dispatch={dispatch} />
        <button type="button" className="btn-inline" aria-expanded={isOpen} onClick={() => onOpen(!isOpen)}>
          {isOpen ? 'Hide files' : 'Show files'}
        </button>
      </span>
    </div>
  )
}

/** With less than this left it is said. */
const nearlyFull = 2 * 1024 ** 3

interface ForAllProps {
  readonly items: readonly UploadItem[]
  readonly dispatch: AppDispatch
}

function ForAll({ items, dispatch }: ForAllProps) {
  const of = (...states: readonly UploadItem['state'][]) => items.filter(each => states.includes(each.state))
  const moving = of('going', 'waiting')
  const paused = of('paused')
  const open = of('going', 'waiting', 'paused', 'asks', 'lost')
  return (
    <>
      {moving.length > 0 && (
        <button
          type="button"
          className="btn-inline"
          onClick={() => moving.forEach(each => pause(dispatch, each.key))}
        >
          Pause all
        </button>
      )}
      {moving.length === 0 && paused.length > 0 && (
        <button
          type="button"
          className="btn-inline"
          onClick={() => paused.forEach(each => resume(dispatch, each.key))}
        >
          Resume all
        </button>
      )}
      {open.length > 0 ? (
        <button
          type="button"
          className="btn-inline"
          onClick={() => open.forEach(each => cancel(dispatch, each))}
        >
          Cancel all
        </button>
      ) : (
        <button
          type="button"
          className="btn-inline"
          onClick={() => dispatch(dropUploads(items.map(each => each.key)))}
        >
          Close
        </button>
      )}
    </>
  )
}

const countsOf = (items: readonly UploadItem[]) => {
  const count = (...states: readonly UploadItem['state'][]) =>
    items.filter(each => states.includes(each.state)).length
  return {
    done: count('done'),
    refused: count('refused'),
    waits: count('paused', 'lost', 'asks'),
    open: count('going', 'waiting', 'paused', 'lost', 'asks'),
  }
}

function wordsFor({ done, refused, waits, open }: ReturnType<typeof countsOf>, all: number): string {
  const failed = refused === 0 ? '' : `, ${numberWords(refused)} refused`
  if (open === 0) return `${counted(done, 'file is', 'files are')} uploaded${failed}`
  const waiting = waits === 0 ? '' : `, ${numberWords(waits)} waiting for you`
  return `${numberWords(done)} of ${counted(all, 'file', 'files')} uploaded${failed}${waiting}`
}

/** What an earlier page had begun to send: the files have to be given to this one. */
function useLost(slug: string): void {
  const dispatch = useAppDispatch()
  const { data } = useUploadsQuery(slug)
  const hasLooked = useRef(false)
  useEffect(() => {
    // Once, on coming: later all that is on its way is this page's.
    if (data === undefined || hasLooked.current) return
    hasLooked.current = true
    const lost = data.uploads.map(({ id, name, place, isVersion, size, received }): UploadItem => ({
      key: `lost ${id}`,
      slug,
      name,
      path: '',
      place,
      isVersion,
      existing: null,
      size,
      sent: received,
      state: 'lost',
      problem: null,
      url: `/api/at/${slug}/uploads/${id}`,
    }))
    if (lost.length > 0) dispatch(addUploads(lost))
  }, [data, dispatch, slug])
}

function useAskBeforeLeaving(isGoing: boolean): void {
  useEffect(() => {
    if (!isGoing) return
    const ask = (event: BeforeUnloadEvent) => event.preventDefault()
    addEventListener('beforeunload', ask)
    return () => removeEventListener('beforeunload', ask)
  }, [isGoing])
}
