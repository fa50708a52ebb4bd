import { type BlockSize, USUAL_BLOCK } from '../core/sections/blockGrid';
import { one, type Queries } from './engine/database';

/** The block size chosen for a canvas, else the usual one. */
export async function blockSizeOf(queries: Queries, canvasId: string): Promise<BlockSize> {
  const row = await one<{ block_columns: number; block_rows: number }>(
    queries,
    'select block_columns, block_rows from section_plan where canvas_id = $1',
    [canvasId],
  );
  return row ? { columns: row.block_columns, rows: row.block_rows } : USUAL_BLOCK;
}

export async function putBlockSize(queries: Queries, canvasId: string, block: BlockSize): Promise<void> {
  await queries.query(
    `insert into section_plan (canvas_id, block_columns, block_rows) values ($1, $2, $3)
     on conflict (canvas_id) do update set block_columns = excluded.block_columns, block_rows = excluded.block_rows`,
    [canvasId, block.columns, block.rows],
  );
}
