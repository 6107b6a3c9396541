import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { sizeWords } from '#core/words/sizes.ts'
import { asVersion, cancel, giveFile, pause, resume } from '../../api/uploader.ts'
import { useAppDispatch } from '../../store/store.ts'
import { dropUploads, type UploadItem } from '../../store/uploads.ts'
import { Bar } from './Bar.tsx'

/** One file on its way: how far it is, and what can be done about it. */
export function UploadLine({ item }: { readonly item: UploadItem }) {
  const { name, path, state, sent, size, problem } = item
  return (
    <li aria-label={name} className="border-b border-base-300 py-1.5 text-sm last:border-b-0">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="min-w-0 grow basis-48 break-words">
          {path !== '' && <span className="quiet">{path} › </span>}
          {name}
        </span>
        {(state === 'going' || state === 'paused') && (
          <Bar label={name} done={size === 0 ? 0 : sent / size} />
        )}
        <span className="quiet w-40 text-right tabular-nums">
          {state === 'done' ? sizeWords(size) : `${sizeWords(sent)} of ${sizeWords(size)}`}
        </span>
        <span className="w-20">{stateWords[state]}</span>
        <Acts item={item} />
      </div>
      {problem !== null && (state === 'refused' || state === 'paused') && (
        <p role="alert" className={state === 'refused' ? 'text-error' : 'text-warning'}>
          {problem.title} <span className="quiet">{problem.detail}</span>
        </p>
      )}
      {state === 'asks' && <SameName item={item} />}
      {state === 'lost' && <PickAgain item={item} />}
    </li>
  )
}

function Acts({ item }: { readonly item: UploadItem }) {
  const dispatch = useAppDispatch()
  const { key, name, state } = item
  const isOver = state === 'done' || state === 'refused'
  const onEnd = () => (isOver ? dispatch(dropUploads([key])) : cancel(dispatch, item))
  return (
    <span className="flex w-40 justify-end gap-1.5">
      {(state === 'going' || state === 'waiting') && (
        <Act word="Pause" of={name} onAct={() => pause(dispatch, key)} />
      )}
      {state === 'paused' && <Act word="Resume" of={name} onAct={() => resume(dispatch, key)} />}
      {state === 'refused' && <Act word="Try again" of={name} onAct={() => resume(dispatch, key)} />}
      {state === 'done' && <Shown item={item} />}
      <Act word={isOver ? 'Hide' : 'Cancel'} of={name} onAct={onEnd} />
    </span>
  )
}

const stateWords: Readonly<Record<UploadItem['state'], string>> = {
  waiting: 'waits',
  going: 'uploading',
  paused: 'paused',
  done: 'done',
  refused: 'refused',
  lost: 'stopped',
  asks: 'same name',
}

interface ActProps {
  readonly word: string
  readonly of: string
  readonly onAct: () => void
}

const Act = ({ word, of, onAct }: ActProps) => (
  <button type="button" className="btn-inline" aria-label={`${word}: ${of}`} onClick={onAct}>
    {word}
  </button>
)

const Shown = ({ item: { slug, place, name } }: { readonly item: UploadItem }) => (
  <Link className="btn-inline" aria-label={`Show: ${name}`} to={`/at/${slug}/content/${place}`}>
    Show
  </Link>
)

function SameName({ item }: { readonly item: UploadItem }) {
  const dispatch = useAppDispatch()
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
      A file with this name is there already.
      <Act word="Upload as new version" of={item.name} onAct={() => asVersion(dispatch, item)} />
      <Act word="Keep both" of={item.name} onAct={() => resume(dispatch, item.key)} />
    </p>
  )
}

/** The page was opened anew: no browser keeps the file for it. */
function PickAgain({ item }: { readonly item: UploadItem }) {
  const dispatch = useAppDispatch()
  const input = useRef<HTMLInputElement>(null)
  const [isWrong, setWrong] = useState(false)
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
      The page was closed before it was done. Pick the same file again to continue where it stopped.
      <Act word="Pick the file …" of={item.name} onAct={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        hidden
        onChange={event => {
          const [file] = event.target.files ?? []
          if (file !== undefined) setWrong(!giveFile(dispatch, item, file))
          event.target.value = ''
        }}
      />
      {isWrong && (
        <span role="alert" className="text-error">
          That is another file: this one is called {item.name} and has {sizeWords(item.size)}.
        </span>
      )}
    </p>
  )
}
