import { useState } from 'react'
import type { Problem } from '#contract/views/problem.ts'
import { useKeepPictureMutation } from './people.ts'

/** A picture that is being chosen: kept by the server at once, used only when an edit names it. */
export function useChosenPicture(slug: string, before: string | null) {
  const [id, setId] = useState(before)
  const [keep, { error, isLoading }] = useKeepPictureMutation()
  const onFile = async (file: File | undefined) => {
    if (file === undefined) return
    const { data } = await keep({ slug, file })
    if (data !== undefined) setId(data.id)
  }
  return {
    id,
    src: id === null ? null : `/api/at/${slug}/pictures/${id}`,
    isBusy: isLoading,
    problem: error as Problem | undefined,
    onFile: (file: File | undefined) => void onFile(file),
    onNone: () => setId(null),
  }
}
