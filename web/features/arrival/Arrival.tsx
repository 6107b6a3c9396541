import { useHere } from '../../api/use-here.ts'
import { TwoSentences } from '../../ui/TwoSentences.tsx'
import { FirstSteps } from './FirstSteps.tsx'
import { ForGuest } from './ForGuest.tsx'
import { WaitsForMe } from './WaitsForMe.tsx'
import { WhereIWas } from './WhereIWas.tsx'

/** Where one arrives, before a place is chosen: what waits for one's word, what is new, and where one was. */
export function Arrival() {
  const { workspace } = useHere()
  return (
    <main className="px-6 py-4 md:min-h-0 md:overflow-y-auto">
      <h1 className="mb-3 text-2xl font-bold">{workspace.name}</h1>
      {workspace.me.kind === 'guest' ? <ForGuest /> : <FirstSteps />}
      <div className="grid gap-x-12 gap-y-6 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <WaitsForMe />
        <div className="grid content-start gap-6">
          <WhereIWas />
          <section aria-label="How access works">
            <h2 className="mb-1 text-lg font-bold">How access works</h2>
            <div className="border-t border-base-300 pt-2">
              <TwoSentences />
              <p className="quiet mt-1 text-sm">
                The gauge beside a name in the tree shows your access level there, from Preview to Steward.
              </p>
            </div>
          </section>
        </div>
      </div>
    </main>
  )
}
