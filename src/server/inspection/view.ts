import type { Canvas } from '../../core/canvas/canvas';
import { inspectionKind, sizeInWordsAgainst } from '../../core/inspection/inspection';
import type { Queries } from '../../data/engine/database';
import { inspectionEntries } from '../../data/inspection';
import type { InspectionView } from './contract';

export async function inspectionView(queries: Queries, canvas: Canvas): Promise<InspectionView[]> {
  return (await inspectionEntries(queries, canvas.id)).map((entry) => {
    const { name, remedy, caution } = inspectionKind(entry.kind);
    const { id, happenedAt, kind, note, hasPhoto, widthCm, heightCm, removedAt } = entry;
    const size =
      widthCm !== null && heightCm !== null ? sizeInWordsAgainst({ widthCm, heightCm }, canvas) : '';
    return {
      id,
      happenedAt,
      name,
      note,
      size,
      remedy,
      caution,
      hasPhoto,
      kind,
      widthCm,
      heightCm,
      removedAt,
    };
  });
}
