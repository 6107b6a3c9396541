import { installPackages, run } from './prepare.mjs'

installPackages()
run('node', ['--import', 'tsx', 'server/backup/main.ts', ...process.argv.slice(2)])
