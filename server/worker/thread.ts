import { parentPort } from 'node:worker_threads'
import type { AccessIndex } from '#core/index/layout.ts'
import { type Asking, inControl, type Reply } from './message.ts'
import { answer } from './question.ts'
import { openIndex } from './packed-index.ts'

/** The last index of each workspace: the next one comes as what differs from it. */
const known = new Map<string, AccessIndex>()

class Stopped extends Error {}

parentPort?.on('message', (asking: Asking) => {
  parentPort?.postMessage(replyTo(asking))
})

function replyTo({ id, workspace, question, was, is, control }: Asking): Reply {
  // Even of a question that nobody waits for any more: the next one builds on its index.
  const before = openIndex(was, known.get(workspace))
  known.set(workspace, before)
  const onProgress = (done: number) => {
    if (Atomics.load(control, inControl.isStopped) === 1) throw new Stopped()
    Atomics.store(control, inControl.permille, Math.floor(1000 * done))
  }
  try {
    onProgress(0)
    const after = is === null ? before : openIndex(is, before)
    return { id, answer: answer(question, [before, after], onProgress) }
  } catch (error) {
    return error instanceof Stopped ? { id, isStopped: true } : { id, fault: String(error) }
  }
}
