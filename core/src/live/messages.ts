import type { IdeaRules, Ideas } from '../ideas/ideaRules.js';
import type { ShownCopy, StudentTable, Way, Ways } from './copies.js';
import type { Poll, PollState, PollValue, Reaction } from './poll.js';
import type { PenState, Rules } from './rules.js';
import type { Scene } from './scene.js';
import type { ScreenState } from './screen.js';
import type { Page } from '../pages/page.js';
import type { WireChange, WireMark } from './wire.js';
import type { Change, LoggedOperation, Operation } from '../ops/operation.js';
import type { Actor } from '../ops/permit.js';
import type { RefusalCode } from '../ops/refusal.js';

/** A lesson's log holds its pages and prepared marks, a sitting's log the marks of one class. */
export interface LogRef {
  kind: 'lesson' | 'sitting';
  id: string;
}

/** Asks for a log; with `since`, only for what came after that number. */
export interface OpenRequest {
  log: LogRef;
  since?: number;
}

/** An own operation that can still be undone. */
export interface UndoEntry {
  id: string;
  /** The pages that it concerns. */
  pages: string[];
  /** Whether it is of pages themselves, such as adding one. */
  ofPages: boolean;
  /** Left out where it is long; the server knows it. */
  inverse?: Change[];
}

/**
 * A log without its marks, which are read page by page. Pages are left out when `operations` is all that
 * the asker lacks.
 */
export interface OpenReply {
  actor: Actor;
  seq: number;
  pages?: Page[];
  /** Ids of the pages that have marks. */
  written?: string[];
  operations: LoggedOperation<WireChange>[];
  /** Oldest first. */
  undoable: UndoEntry[];
}

/** Asks for the marks of a page, which come in pieces. */
export interface ReadRequest {
  log: LogRef;
  page: string;
  /** Comes back with each piece, so that those of a reading that was given up are known. */
  read: number;
}

/**
 * Some of a page's marks as they are now. Pieces come between operations in such an order that taking both
 * as they come ends with what the server has.
 */
export interface PieceMessage {
  log: string;
  page: string;
  read: number;
  marks: WireMark[];
  last: boolean;
}

export interface SubmitRequest {
  log: LogRef;
  operation: Operation<WireChange>;
}

/** The place that a submitted operation has in its log, whether it arrived now or had before. */
export interface SubmitReply {
  seq: number;
}

/** Tells of what was stored in a log, one's own too, in the order of the numbers. */
export interface OperationsMessage {
  log: string;
  logged: LoggedOperation<WireChange>[];
}

/** Failures that go away by waiting: what was to be stored is kept and sent again. */
export const PASSING = ['too-fast', 'sent-again', 'storage-full'] as const;
export type PassingCode = (typeof PASSING)[number];

/** Any request may be answered with this instead. The message is fit to be shown. */
export interface Failure {
  error: { code: RefusalCode | string; message: string };
}

export interface Person {
  id: string;
  /** Empty where names are not to be seen. */
  name: string;
  colour: string;
  /** Which of the dashes tells them from others of the same colour. */
  dash: number;
  /** Whether they are connected. */
  here: boolean;
  /** Whether they are connected but look at something else. */
  away: boolean;
  /** What their pen may, where that is not what all pens may. */
  pen: PenState | null;
}

/** Somebody who waits for the teacher's nod: as a new one, or as somebody of that name who is here. */
export interface Ask {
  id: string;
  name: string;
  why: 'new' | 'same-name' | 'not-listed';
}

/** Where somebody points, page units; volatile, never stored. */
export interface PointMessage {
  sitting: string;
  page: string;
  x: number;
  y: number;
  /** Whether they have stopped. */
  gone: boolean;
}

export interface PointedMessage extends PointMessage {
  author: string;
}

/** Pens up or down of all, which ends what was said of single ones. */
export interface PensMessage {
  sitting: string;
  up: boolean;
}

/** Pens up or down of single students. */
export interface PensOfMessage {
  sitting: string;
  pens: Readonly<Record<string, PenState>>;
}

/** Hands pages to the class in other ways. */
export interface WaysMessage {
  sitting: string;
  ways: Readonly<Record<string, Way>>;
}

/** Seats students at tables. */
export interface TablesMessage {
  sitting: string;
  tables: readonly StudentTable[];
}

/** Shows one copy to all, or none. */
export interface ShowCopyMessage {
  sitting: string;
  copy: ShownCopy | null;
}

/** Asks the whole class something. */
export interface AskMessage {
  sitting: string;
  poll: Poll;
}

export interface AnswerMessage {
  sitting: string;
  poll: string;
  value: PollValue;
}

/** Closes a poll, or opens it again; `away`: it is no longer shown. */
export interface PollMessage {
  sitting: string;
  poll: string;
  open: boolean;
  away: boolean;
}

/** A hand goes up or down: one's own, or, by the teacher, that of a student or of all. */
export interface HandMessage {
  sitting: string;
  up: boolean;
  who?: string;
}

export interface ReactMessage {
  sitting: string;
  which: Reaction;
}

/** A student has reacted; told to the teacher, never stored. */
export interface ReactedMessage extends ReactMessage {
  student: string;
}

/** Collects ideas on pages in a way, or no more. */
export interface IdeasMessage {
  sitting: string;
  set: Readonly<Record<string, IdeaRules | null>>;
}

/** Gives a note one's vote or takes it back; without a note, only asks how votes stand. */
export interface VoteMessage {
  sitting: string;
  page: string;
  note?: string;
  up?: boolean;
}

/** How votes of a page stand: those of whoever asks, and of all, by note, where they are to be seen. */
export interface VotesReply {
  mine: readonly string[];
  counts: Readonly<Record<string, number>> | null;
}

/** Tells how votes of a page stand. */
export interface VotedMessage {
  sitting: string;
  page: string;
  counts: Readonly<Record<string, number>>;
}

/** Changes what students may do. */
export interface RulesMessage {
  sitting: string;
  set: Partial<Rules>;
}

/** Whether somebody looks at the class or at something else. */
export interface LooksMessage {
  sitting: string;
  away: boolean;
}

/** Changes what is set up for the class. `moving`: while a hand still moves it, so it need not be kept. */
export interface SceneMessage {
  sitting: string;
  set: Partial<Scene>;
  moving: boolean;
}

export const DEVICE_KINDS = ['display', 'pad', 'companion'] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];

/** A display or pad that writes as the teacher. */
export interface DeviceState {
  id: string;
  kind: DeviceKind;
  here: boolean;
}

/** What everybody in a class needs to know of it. */
export interface ClassState {
  sitting: string;
  lesson: string;
  title: string;
  /** The page that the class is on. */
  page: string;
  pensUp: boolean;
  ended: boolean;
  /** Whether nobody else is let in. */
  locked: boolean;
  people: Person[];
  /** Whether whoever comes waits for the teacher's nod. */
  nodding: boolean;
  /** Whether one has to know a password to come in. */
  hasPassword: boolean;
  /** The group that is taught, if it is one of the teacher's; names are the teacher's to see. */
  group: { id: string; title: string; names: readonly string[] } | null;
  /** Those who wait for the teacher's nod; the teacher's to see. */
  asks: Ask[];
  rules: Rules;
  /** Pages that are not worked on together. */
  ways: Ways;
  /** Groups of students that share pages. */
  tables: readonly StudentTable[];
  /** A copy that is shown to all, if one is. */
  copy: ShownCopy | null;
  /** Pages on which ideas are collected. */
  ideas: Ideas;
  /** What is being asked, or was asked last and is still shown. */
  poll: PollState | null;
  /** Students whose hands are up, the first first. */
  hands: readonly string[];
  /** Differs wherever the rules let students see other marks: they read pages anew. */
  sight: string;
  /** The screen that is being shown, if one is. */
  screen: ScreenState | null;
  /** Students who may show their screen. */
  presenters: string[];
  /** Whether the class is being recorded, and whether students are told in words; null where it is not. */
  recording: { told: boolean } | null;
  scene: Scene;
  devices: DeviceState[];
  /** The server's clock when this was told, milliseconds since 1970-01-01 UTC. */
  now: number;
  /** Counts changes since the server was started. */
  version: number;
}

/** Socket event names, by direction. */
export const LIVE = {
  recording: 'recording',
  open: 'open',
  read: 'read',
  piece: 'piece',
  submit: 'submit',
  draw: 'draw',
  enter: 'enter',
  turn: 'turn',
  pens: 'pens',
  pensOf: 'pensOf',
  rules: 'rules',
  ask: 'ask',
  answer: 'answer',
  poll: 'poll',
  hand: 'hand',
  react: 'react',
  reacted: 'reacted',
  ways: 'ways',
  tables: 'tables',
  showCopy: 'showCopy',
  ideas: 'ideas',
  vote: 'vote',
  voted: 'voted',
  /** The last messages of a class. */
  chat: 'chat',
  say: 'say',
  unsay: 'unsay',
  said: 'said',
  notes: 'notes',
  noteSteps: 'noteSteps',
  noted: 'noted',
  /** Tells whether somebody looks at the class or at something else. */
  looks: 'looks',
  operations: 'operations',
  drawn: 'drawn',
  /** What has changed in a class; all of it is the answer to `enter`. */
  classChange: 'class',
  scene: 'scene',
  point: 'point',
  pointed: 'pointed',
  /** Tells a device that it has been taken out. */
  out: 'out',
} as const;

/** Largest operation a client may submit, in characters of JSON. */
export const MAX_OPERATION_LENGTH = 1_000_000;
