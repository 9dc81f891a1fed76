import type { ArchiveFault, ArchiveHead } from '@doodla/core/archive';

/** A file that goes into an archive as it is. */
export interface PackedFile {
  /** In the archive. */
  path: string;
  from: string;
}

/** To pack what lies in a folder, and stored files, into an archive; or to unpack one into a folder. */
export type ArchiveTask =
  | { kind: 'pack'; folder: string; files: readonly PackedFile[]; out: string }
  | { kind: 'unpack'; path: string; folder: string; maxBytes: number };

export type ArchiveAnswer = { kind: 'packed' } | { kind: 'unpacked'; head: ArchiveHead };

/** How far it is: pages that are drawn or read. */
export interface ArchiveNote {
  done: number;
  total: number;
}

/** Why an archive cannot be taken; `too-large` where it unfolds to more than it may. */
export type ArchiveFailure = ArchiveFault | 'too-large';
