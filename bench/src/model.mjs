// What a city and a country need, reckoned from what a class was measured to cost; a model on paper. `node bench/src/model.mjs`
// prints it as a table and as one line of JSON. Whoever measures other figures on other machines puts them in here.
import { pathToFileURL } from 'node:url';

/**
 * Measured: `bench:many` and `bench:class` on a virtual machine of two cores (docs/operations.md, Sizing). A class there has 12
 * students of whom 3 write without a pause.
 */
export const MEASURED = {
  students: 12,
  /** Of a core, all the time: the dearest that was measured, at few classes on a slow day. */
  coreOfClass: 0.045,
  /** To all browsers of a class together, bytes a second. */
  bytesOut: 190_000,
  /** Operations that are stored, a second. */
  appends: 2.5,
  /** What an operation adds to PostgreSQL with all its indexes, bytes. */
  bytesOfAppend: 1300,
  /** What a process is without classes, and each connection adds, bytes of memory. */
  processMemory: 180e6,
  connectionMemory: 60_000,
};

/** Assumed, not measured: common practice, no source. */
export const ASSUMED = {
  students: 25,
  /** Where 3 of 12 write without a pause, a class of an ordinary lesson writes so much of the time. */
  busyShare: 0.4,
  /** Classes in which a screen is shown live at a time, and what each of those who watch gets, bytes a second. */
  showing: 0.15,
  screenBytes: 60_000,
  /** No process, database or line is planned fuller than this at the busiest time. */
  fullest: 0.6,
  coresOfMachine: 16,
  /** Operations that one PostgreSQL with its log on a fast disk of its own stores a second, many at once. */
  appendsOfDatabase: 15_000,
  /** Connections that a process keeps to PostgreSQL (8 + 16 + 4 + 1 in `storage/`), and that one PostgreSQL bears without a pooler. */
  connectionsOfProcess: 29,
  connectionsOfDatabase: 1000,
  /** Of a machine's line, bytes a second: 10 Gbit/s. */
  lineOfMachine: 1.25e9,
  /** Lessons a day and class, of so many seconds, on so many days a year; what is kept for so many days. */
  lessonsOfDay: 5,
  secondsOfLesson: 45 * 60,
  schoolDaysOfYear: 190,
  keptDays: 180,
};

/** What so many classes at once need. */
export function need(classes, measured = MEASURED, assumed = ASSUMED) {
  const larger = assumed.students / measured.students;
  // Whoever writes is passed on to everybody: work and bytes grow with the class; what is stored grows with who writes.
  const cores = (classes * measured.coreOfClass * larger * assumed.busyShare) / assumed.fullest;
  const appends = classes * measured.appends * larger * assumed.busyShare;
  const ink = classes * measured.bytesOut * larger * larger * assumed.busyShare;
  const screens = classes * assumed.showing * assumed.screenBytes * assumed.students;
  const processes = Math.max(2, Math.ceil(cores));
  const memory =
    processes * measured.processMemory + classes * (assumed.students + 1) * measured.connectionMemory;
  const secondsKept =
    assumed.lessonsOfDay * assumed.secondsOfLesson * assumed.schoolDaysOfYear * (assumed.keptDays / 365);
  const database = appends * measured.bytesOfAppend * secondsKept;
  return {
    classes,
    people: classes * assumed.students,
    cores: Math.ceil(cores),
    processes,
    machines: Math.max(2, Math.ceil(processes / assumed.coresOfMachine)),
    memoryGb: round(memory / 1e9),
    inkGbitPerSecond: round((ink * 8) / 1e9),
    screensGbitPerSecond: round((screens * 8) / 1e9),
    appendsPerSecond: Math.ceil(appends),
    databases: Math.max(
      1,
      Math.ceil(appends / (assumed.appendsOfDatabase * assumed.fullest)),
      Math.ceil((processes * assumed.connectionsOfProcess) / assumed.connectionsOfDatabase),
    ),
    databaseTb: round(database / 1e12),
  };
}

/** At how many classes each part comes to its limit, of one installation with one database and one machine as its door. */
export function limits(measured = MEASURED, assumed = ASSUMED) {
  const one = need(1000, measured, assumed);
  const ofThousand = { ink: (one.inkGbitPerSecond + one.screensGbitPerSecond) / 8 };
  return {
    'the line of one proxy': Math.floor(
      (1000 * assumed.lineOfMachine * assumed.fullest) / (ofThousand.ink * 1e9),
    ),
    'the log of one PostgreSQL': Math.floor(
      (1000 * assumed.appendsOfDatabase * assumed.fullest) / one.appendsPerSecond,
    ),
    'the connections of one PostgreSQL': Math.floor(
      (1000 * assumed.connectionsOfDatabase) / assumed.connectionsOfProcess / one.cores,
    ),
    'the cores of one machine': Math.floor((1000 * assumed.coresOfMachine) / one.cores),
  };
}

const round = (value) => Math.round(value * 10) / 10;

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  const all = { school: need(40), district: need(400), city: need(2000), country: need(100_000) };
  console.table(all);
  console.table(limits());
  console.log(JSON.stringify({ bench: 'model', ...all, limits: limits() }));
}
