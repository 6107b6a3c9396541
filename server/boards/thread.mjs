// The sources are TypeScript: a thread of its own has to be told how to read them.
import { register } from 'tsx/esm/api'

register()
await import('./thread.ts')
