export { startServer, VERSION, type RunningServer, type ServerOptions } from './server.ts';
export { ForeignDatabase } from './database/migrate.ts';
export { LOG_LEVELS, serverLog, type LogLevel } from './platform/log.ts';
export { Occupied } from './platform/waker.ts';
