export const databaseNeeds: readonly { readonly program: string; readonly packages: readonly string[] }[];
export interface Database {
  readonly url: string;
  readonly port: number;
  readonly pid: number;
  readonly stop: () => Promise<void>;
  readonly kill: () => void;
  readonly ended: Promise<unknown>;
}
export function startDatabase(
  folder: string,
  options?: { readonly port?: number; readonly quiet?: boolean },
): Promise<Database>;
