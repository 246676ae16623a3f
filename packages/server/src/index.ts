export { startServer, VERSION, type RunningServer, type ServerOptions } from './server.ts';
export { NewerDatabase } from './database/migrate.ts';
