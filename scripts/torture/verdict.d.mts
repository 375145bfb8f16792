interface Tables {
  readonly songbooks: readonly { readonly id: string; readonly revision: number; readonly document: string }[];
  readonly shows: readonly {
    readonly id: string;
    readonly name: string;
    readonly revision: number;
    readonly rig: string;
    readonly songbook_id: string;
  }[];
  readonly batches: readonly {
    readonly show_id: string;
    readonly id: string;
    readonly revision: number;
    readonly steps: string;
  }[];
}
export function verdictOf(seen: {
  readonly before: Tables;
  readonly after: Tables;
  readonly taken: readonly { readonly rig: string; readonly id: string; readonly revision: number }[];
}): { readonly lost: number; readonly doubled: number; readonly corrupt: number; readonly torn: number };
