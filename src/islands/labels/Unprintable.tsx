import type { UnprintableView } from '../../server/labels/contract';
import { Notice } from '../../ui/Notice';
import { useAnswer } from '../writing/useAnswer';

/** Says before anything is printed what no font here has. */
export function Unprintable({ canvasId }: { canvasId: string }) {
  const { answer } = useAnswer<UnprintableView>(`/api/canvases/${canvasId}/unprintable`);
  return answer?.sentence ? <Notice kind="hint">{answer.sentence}</Notice> : null;
}
