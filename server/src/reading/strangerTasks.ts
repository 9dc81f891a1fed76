import type { ProblemReply } from '@doodla/core';
import type { DocumentKind } from '../documents/documentKind.js';

/** What the reading worker is asked for. */
export type StrangerTask =
  /** A web page, as HTML or a web archive. */
  | { kind: 'page'; text: string; url: string }
  | { kind: 'document'; path: string; name: string }
  | { kind: 'notes'; path: string; type: DocumentKind }
  | { kind: 'text'; path: string; type: 'md' | 'txt' };

export type StrangerAnswer =
  | { kind: 'page'; title: string; html: string; lost: number }
  | { kind: 'document'; type: DocumentKind }
  | { kind: 'notes'; notes: string[] }
  | { kind: 'text'; html: string }
  /** A sentence for whoever brought the file. */
  | { kind: 'refused'; status: number; code: string; message: string; values?: ProblemReply['values'] };

/** The worker needs something that a page is made of. It has no way to the network itself. */
export interface PartWanted {
  url: string;
}

export type Part = { type: string; bytes: Uint8Array } | undefined;
