export { startServer, VERSION, type RunningServer, type ServerOptions } from './server.ts';
export { ForeignDatabase } from './database/migrate.ts';
