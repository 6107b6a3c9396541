import { Link } from 'react-router'
import type { DraftHead } from '#contract/views/drafts.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { useDraftQuery, useDraftsQuery } from '../../../api/drafts.ts'
import { usePreview } from '../../../api/use-preview.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { impactLine } from '../../../ui/BeforeAfter.tsx'

/** The draft, at the foot of every screen, with what it would do now. */
export function DraftBar() {
  const { slug } = useHere()
  const { data } = useDraftsQuery(slug)
  return data?.draft == null ? null : <Bar draft={data.draft} />
}

/** Of more than so many edits the bar does not tell at every turn what they do. */
const previewedAtMost = 200
const none: EditRequest[] = []

function Bar({ draft: { id, count } }: { readonly draft: DraftHead }) {
  const { slug, workspace } = useHere()
  const { data } = useDraftQuery({ slug, id })
  const edits = data?.edits ?? none
  const isMany = edits.length > previewedAtMost
  // What others do meanwhile changes what it would do.
  const { preview, problem } = usePreview(slug, isMany ? none : edits, workspace.revision)
  return (
    <section
      aria-label="Draft changes"
      className="flex items-center gap-4 border-t-2 border-primary bg-base-200 px-4 py-1.5"
    >
      <strong className="shrink-0">{counted(count, 'draft change', 'draft changes')}</strong>
      <span className="min-w-0 truncate text-sm">
        {isMany ? (
          'Preview them to see their effect.'
        ) : problem === undefined ? (
          previewWords(preview)
        ) : (
          <span className="text-error">{problem.title}</span>
        )}
      </span>
      <Link className="btn-plain ml-auto shrink-0" to={`/at/${slug}/oversight/draft`}>
        Preview
      </Link>
    </section>
  )
}

function previewWords(preview: PreviewView | undefined): string {
  const [now] = preview?.impact ?? []
  if (preview === undefined || now === undefined) return 'Working out the effect …'
  return impactLine(now, preview.isWhole)
}
