/** Whether the stand-ins for devices (a scale, a camera) are offered. */
export function mayBeSimulated(): boolean {
  return document.documentElement.dataset.simulated !== undefined;
}
