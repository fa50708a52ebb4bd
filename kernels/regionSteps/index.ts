/*
 * AssemblyScript, not TypeScript: the steps of `core/placing/search/plainSteps.ts` in WebAssembly, where the least of many is
 * found by vector instructions and without a branch. `bin/kernels.ts` makes of it what the core loads; both come to the same
 * numbers.
 */
export { moveBands } from './bands';
export { bound, cost, moveColumns, moveRows } from './chains';
export { passBack, passOn } from './messages';
