import { useEffect, useState } from 'react'
import type { PreviewView } from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { useAppDispatch } from '../store/store.ts'
import { api } from './api.ts'

export interface Preview {
  readonly preview: PreviewView | undefined
  /** Why it would be refused. */
  readonly problem: Problem | undefined
  /** While it is not known: how far it is, 0 to 1, and ways to stop it, or to ask for it again. */
  readonly waiting?: { readonly done: number; readonly onStop: () => void } | { readonly onAgain: () => void }
}

const nothing: Preview = { preview: undefined, problem: undefined }

/** An answer with the edits that it is about: it is never shown for others. */
interface Answer extends Preview {
  readonly query: string
  readonly isStopped?: boolean
}

/** What these edits would do, asked anew a moment after they change; nothing until that is known. With a revision it is asked anew when that changes. */
export function usePreview(slug: string, edits: readonly EditRequest[], revision = 0): Preview {
  const dispatch = useAppDispatch()
  const [answer, setAnswer] = useState<Answer>()
  const [tries, setTries] = useState(0)
  const query = JSON.stringify(edits)
  useEffect(() => {
    const meant = JSON.parse(query) as EditRequest[]
    if (meant.length === 0) return undefined
    let isCurrent = true
    let stop = () => {}
    const timer = setTimeout(() => {
      const waiting = dispatch(
        api.endpoints.preview.initiate(
          {
            slug,
            edits: meant,
            onProgress: done => {
              if (isCurrent) setAnswer({ ...nothing, query, waiting: { done, onStop } })
            },
          },
          { track: false },
        ),
      )
      stop = () => waiting.abort()
      void waiting.then(({ data, error }) => {
        if (isCurrent) setAnswer({ query, preview: data, problem: error as Problem | undefined })
      })
    }, 150)
    const leave = () => {
      isCurrent = false
      clearTimeout(timer)
      stop()
    }
    const onStop = () => {
      leave()
      setAnswer({ ...nothing, query, isStopped: true })
    }
    return leave
  }, [query, dispatch, slug, revision, tries])
  const onAgain = () => {
    setAnswer(undefined)
    setTries(tries + 1)
  }
  if (answer?.query !== query) return nothing
  return answer.isStopped === true ? { ...answer, waiting: { onAgain } } : answer
}
