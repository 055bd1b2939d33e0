import { join, resolve } from 'node:path';

/** The files of one site's data folder. */
export interface DataFolder {
  folder: string;
  database: string;
  /** Sessions and sign-in links. */
  operations: string;
}

/** The data folder named, else that of BONTEL_DATA, else `data` here. */
export function dataFolder(named?: string): DataFolder {
  const folder = resolve(named ?? process.env.BONTEL_DATA ?? 'data');
  return { folder, database: join(folder, 'site.db'), operations: join(folder, 'ops.db') };
}
