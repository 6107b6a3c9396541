import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
}

/** Being told when who has access here, or below, changes; or no longer. */
export function Watch({ access: { watch }, node }: Props) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const turn = () =>
    watch === null
      ? apply(
          [{ kind: 'watch.begin', node: node.id }],
          `You watch ${node.name}: you are notified when access changes.`,
        )
      : apply([{ kind: 'watch.end', watch }], `You no longer watch ${node.name}.`)
  return (
    <>
      <button
        type="button"
        className="btn-inline text-sm"
        aria-pressed={watch !== null}
        disabled={isBusy}
        onClick={() => void turn()}
      >
        {watch === null ? 'Watch access to this place' : 'Stop watching access'}
      </button>
      <ProblemNote problem={problem} />
    </>
  )
}
