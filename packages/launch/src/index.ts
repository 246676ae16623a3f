export { startPostgres, freePort, type Postgres } from './postgres.ts';
export { filesBelow, sendFiles, waitForImport, call } from './client.ts';
export { declareDemo, loadDemo } from './demo-data.ts';
export { install, serverPrograms } from './packages.ts';
export { run, show, Stop } from './commands.ts';
export { ROOT } from './places.ts';
