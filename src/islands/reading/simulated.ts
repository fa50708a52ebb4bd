import type { Corners } from '../../core/reading/homography';
import { addressOfReading } from './useReading';

/**
 * A photo by the simulated camera, and where what it shows lies in it.
 * @param wish as docs/api.md has it @throws Error with a sentence
 */
export async function simulatedPhoto(
  canvasId: string,
  wish: Record<string, string | number>,
): Promise<{ photo: Blob; corners: Corners[] }> {
  const query = new URLSearchParams(Object.entries(wish).map(([name, value]) => [name, String(value)]));
  const response = await fetch(`${addressOfReading(canvasId)}/simulated.jpg?${query}`).catch(() => null);
  if (!response?.ok) throw new Error('The simulated camera took no photo.');
  return {
    photo: await response.blob(),
    corners: JSON.parse(response.headers.get('x-oculent-corners') ?? '[]') as Corners[],
  };
}
