/**
 * Whether the stand-ins for devices (a scale, a camera) may be used: where the demo or a test asks for them. In a real
 * record they would write down what nobody weighed or saw.
 */
export function mayBeSimulated(): boolean {
  return document.documentElement.dataset.simulated !== undefined;
}
