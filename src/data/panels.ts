import type { PanelPlan } from '../core/chart/panels';
import { one, type Queries } from './engine/database';

/** The panels that the user cuts a canvas into; null before he does. */
/** The plan that was kept last, whether or not it fits the canvas as it is now. */
export async function panelPlanOf(queries: Queries, canvasId: string): Promise<PanelPlan | null> {
  return one<PanelPlan>(
    queries,
    `select column_cuts as "columnCuts", row_cuts as "rowCuts", overlap, margin_mm as "marginMm",
            reach_width_cm as "reachWidthCm", reach_height_cm as "reachHeightCm"
     from panel_plan where canvas_id = $1`,
    [canvasId],
  );
}

export async function putPanelPlan(queries: Queries, canvasId: string, plan: PanelPlan): Promise<void> {
  await queries.query(
    `insert into panel_plan
       (canvas_id, column_cuts, row_cuts, overlap, margin_mm, reach_width_cm, reach_height_cm)
     values ($1, $2::jsonb, $3::jsonb, $4, $5, $6, $7)
     on conflict (canvas_id) do update
     set column_cuts = excluded.column_cuts, row_cuts = excluded.row_cuts, overlap = excluded.overlap,
         margin_mm = excluded.margin_mm, reach_width_cm = excluded.reach_width_cm,
         reach_height_cm = excluded.reach_height_cm`,
    [
      canvasId,
      JSON.stringify(plan.columnCuts),
      JSON.stringify(plan.rowCuts),
      plan.overlap,
      plan.marginMm,
      plan.reachWidthCm,
      plan.reachHeightCm,
    ],
  );
}
