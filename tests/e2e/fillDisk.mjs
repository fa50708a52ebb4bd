import { openSync, writeSync } from 'node:fs';

/* Writes into a file until the disk is full. */
const file = openSync(process.argv[2], 'w');
for (const size of [1 << 20, 1 << 12]) {
  const part = Buffer.alloc(size);
  try {
    for (;;) writeSync(file, part);
  } catch (error) {
    if (error.code !== 'ENOSPC') throw error;
  }
}
console.log('full');
