/** The browser's database: one row per entity, and a log of every change for undo and for other tabs. */
import Dexie, { type Table } from 'dexie';
import type { Change } from '../../core/job/document.ts';
import type { Edition, Entity, Job, TableName } from '../../core/job/schema.ts';

export interface JobRow {
  id: string;
  name: string;
  address: string;
  edition: Edition;
  updatedAt: number;
  /** When it was thrown away; it can be put back until it is cleared out. */
  deletedAt: number | null;
}

export interface EntityRow {
  jobId: string;
  table: TableName | 'job';
  id: string;
  value: Entity | Job;
}

export interface ChangeRow {
  seq?: number;
  jobId: string;
  kind: 'do' | 'undo' | 'redo' | 'record';
  label: string;
  changes: Change[];
  /** For undo and redo: the `do` row it takes back or makes again. */
  of: number | null;
  at: number;
}

class HektoDatabase extends Dexie {
  jobs!: Table<JobRow, string>;
  entities!: Table<EntityRow, [string, string, string]>;
  changes!: Table<ChangeRow, number>;

  constructor() {
    super('hekto');
    this.version(1).stores({
      jobs: 'id, updatedAt',
      entities: '[jobId+table+id], jobId',
      changes: '++seq, [jobId+seq]',
    });
  }
}

export const db = new HektoDatabase();
