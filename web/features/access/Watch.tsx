import type { AccessView, NodeView } from '#contract/views.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

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
      ? apply([{ kind: 'watch.begin', node: node.id }], `You are told when access to ${node.name} changes.`)
      : apply([{ kind: 'watch.end', watch }], `You are no longer told when access to ${node.name} changes.`)
  return (
    <>
      <button
        type="button"
        className="act text-sm"
        aria-pressed={watch !== null}
        disabled={isBusy}
        onClick={() => void turn()}
      >
        {watch === null ? 'Watch access here and below' : 'You watch access here: stop'}
      </button>
      <ProblemNote problem={problem} />
    </>
  )
}
