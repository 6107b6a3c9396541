import { useHere } from '../../../api/use-here.ts'
import { DirectoryScreen } from './DirectoryScreen.tsx'
import { PeopleScreen } from './PeopleScreen.tsx'

/** The list for those who look after people; for everybody else their colleagues. */
export function People() {
  const { workspace } = useHere()
  return workspace.managesPeople ? <PeopleScreen /> : <DirectoryScreen />
}
