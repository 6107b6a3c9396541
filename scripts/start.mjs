import { buildPages, installPackages, run, serverEnv, serverFlags } from './prepare.mjs'

installPackages()
buildPages()
// The server stops by itself on a signal; this process only has to outlive it.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => {})
run('node', [...serverFlags, 'server/main.ts', ...process.argv.slice(2)], { env: serverEnv })
