import type { Scene } from './scene.js';
import type { ScreenState } from './screen.js';
import type { InkStyle, Space } from '../marks/mark.js';
import type { LogSnapshot } from '../ops/logState.js';
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
  inverse: Change[];
}

export interface OpenReply {
  actor: Actor;
  /** Left out when `operations` is all that the asker lacks. */
  snapshot?: LogSnapshot;
  operations: LoggedOperation[];
  /** Oldest first. */
  undoable: UndoEntry[];
}

export interface SubmitRequest {
  log: LogRef;
  operation: Operation;
}

/** Tells of an operation in a log, one's own too, in the order of their numbers. */
export interface OperationMessage {
  log: string;
  logged: LoggedOperation;
}

/**
 * Tells the author that an operation is stored; comes in the place of its OperationMessage. What an
 * undo changed is the server's to say, so its changes come along.
 */
export interface StoredMessage {
  log: string;
  seq: number;
  at: number;
  operation: string;
  changes?: Change[];
}

/** Any request may be answered with this instead. The message is fit to be shown. */
export interface Failure {
  error: { code: RefusalCode | string; message: string };
}

/** Points of a stroke while it is being drawn; volatile, never stored. */
export interface DrawMessage {
  log: LogRef;
  page: string;
  space: Space;
  stroke: string;
  style: InkStyle;
  pressure: boolean;
  /** Index of the first point sent, so that a lost message shows as a gap and not as a jump. */
  from: number;
  points: number[];
  /** Milliseconds after which ink fades that becomes no mark. */
  fade?: number;
}

export interface DrawnMessage extends DrawMessage {
  author: string;
}

export interface Person {
  id: string;
  name: string;
  colour: string;
  here: boolean;
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

/** Changes what is set up for the class. `moving`: while a hand still moves it, so it need not be kept. */
export interface SceneMessage {
  sitting: string;
  set: Partial<Scene>;
  moving: boolean;
}

export const DEVICE_KINDS = ['display', 'pad'] as const;
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
  people: Person[];
  /** The screen that is being shown, if one is. */
  screen: ScreenState | null;
  /** Students who may show their screen. */
  presenters: string[];
  scene: Scene;
  devices: DeviceState[];
  /** The server's clock when this was told, milliseconds since 1970-01-01 UTC. */
  now: number;
}

/** Socket event names, by direction. */
export const LIVE = {
  open: 'open',
  submit: 'submit',
  draw: 'draw',
  enter: 'enter',
  turn: 'turn',
  pens: 'pens',
  operation: 'operation',
  stored: 'stored',
  drawn: 'drawn',
  classState: 'class',
  scene: 'scene',
  point: 'point',
  pointed: 'pointed',
  /** Tells a device that it has been taken out. */
  out: 'out',
} as const;

/** Largest operation a client may submit, in characters of JSON. */
export const MAX_OPERATION_LENGTH = 1_000_000;
