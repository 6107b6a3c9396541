import { useEffect, useState } from 'react'
import type { Problem } from '#contract/problem.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { ForeseenView } from '#contract/views.ts'
import { useAppDispatch } from '../store/store.ts'
import { api } from './api.ts'

export interface Foreseen {
  readonly effect: ForeseenView | undefined
  /** Why it would be refused. */
  readonly problem: Problem | undefined
}

const nothing: Foreseen = { effect: undefined, problem: undefined }

/** An answer with the edits that it is about: it is never shown for others. */
interface Answer extends Foreseen {
  readonly asked: string
}

/** What these edits would do, asked anew a moment after they change; nothing until that is known. With a revision it is asked anew when that changes. */
export function useForesee(slug: string, edits: readonly EditRequest[], revision = 0): Foreseen {
  const dispatch = useAppDispatch()
  const [answer, setAnswer] = useState<Answer>()
  const asked = JSON.stringify(edits)
  useEffect(() => {
    const meant = JSON.parse(asked) as EditRequest[]
    let isCurrent = true
    const timer = setTimeout(() => {
      void dispatch(api.endpoints.foresee.initiate({ slug, edits: meant }, { track: false })).then(
        ({ data, error }) => {
          if (isCurrent) setAnswer({ asked, effect: data, problem: error as Problem | undefined })
        },
      )
    }, 150)
    return () => {
      isCurrent = false
      clearTimeout(timer)
    }
  }, [asked, dispatch, slug, revision])
  return answer?.asked === asked ? answer : nothing
}
