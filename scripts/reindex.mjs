import { installPackages, run } from './prepare.mjs'

installPackages()
run('node', ['--import', 'tsx', 'server/reindex.ts', ...process.argv.slice(2)])
