import { spawn } from 'node:child_process';
import { buildPrograms, THREADS } from './programs';

/* The development server. Its threads run what was built when it began. */
await buildPrograms(THREADS, 'dist/server');
const server = spawn('npx', ['--no-install', 'astro', 'dev', ...process.argv.slice(2)], { stdio: 'inherit' });
server.once('exit', (code) => process.exit(code ?? 1));
