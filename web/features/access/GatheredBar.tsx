import { Link } from 'react-router'
import type { DraftView } from '#contract/access-views.ts'
import type { ForeseenView } from '#contract/effect-views.ts'
import { useDraftsQuery } from '../../api/drafts.ts'
import { useForesee } from '../../api/use-foresee.ts'
import { useHere } from '../../api/use-here.ts'
import { effectInWords } from '../../ui/BeforeAfter.tsx'

/** What is gathered and not made yet, at the foot of every screen, with what it would do now. */
export function GatheredBar() {
  const { slug } = useHere()
  const { data } = useDraftsQuery(slug)
  return data?.gathered == null ? null : <Bar draft={data.gathered} />
}

function Bar({ draft }: { readonly draft: DraftView }) {
  const { slug, workspace } = useHere()
  // What others do meanwhile changes what it would do.
  const { effect, problem } = useForesee(slug, draft.edits, workspace.revision)
  const count = draft.items.length === 1 ? '1 change gathered' : `${draft.items.length} changes gathered`
  return (
    <section
      aria-label="Gathered"
      className="flex items-center gap-4 border-t-2 border-primary bg-base-200 px-4 py-1.5"
    >
      <strong className="shrink-0">{count}</strong>
      <span className="min-w-0 truncate text-sm">
        {problem === undefined ? effectWords(effect) : <span className="text-error">{problem.title}</span>}
      </span>
      <Link className="btn-plain ml-auto shrink-0" to={`/at/${slug}/oversight/gathered`}>
        Look through
      </Link>
    </section>
  )
}

function effectWords(effect: ForeseenView | undefined): string {
  const [now] = effect?.impact ?? []
  if (effect === undefined || now === undefined) return 'Working out what they do …'
  return effectInWords(now, effect.isWhole)
}
