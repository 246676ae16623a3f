import { system } from './world.ts';
const own = await system('lookup-5000000', false);
console.log(own.server.url, own.postgres.url);
process.on('SIGTERM', () => void own.stop().then(() => process.exit(0)));
