import type { OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { copyFile, mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Problem } from '../http/problem.js';
import { namespaceOf } from '../processes/redis.js';
import type { TurnOptions } from '../reading/fairTurns.js';
import { FairTurns } from '../reading/fairTurns.js';
import { StrangersService } from '../reading/strangers.service.js';
import { Settings } from '../settings/settings.js';
import { Database } from '../storage/database.js';
import { FileStore } from '../storage/fileStore.js';
import type { Conversion, Converted } from './conversionQueue.js';
import { ConversionQueue, QueueAwayError } from './conversionQueue.js';
import type { DocumentKind } from './documentKind.js';
import { endLeftovers, leftoverPrefix } from './leftovers.js';

/** Address space that one conversion may take, kilobytes. */
const MAX_MEMORY_KB = 6_000_000;

/** So many conversions may come before one until it is given up. */
const MOST_BEFORE = 10;

/** What a fresh profile is told: run nothing, fetch nothing. */
const PROFILE = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="MacroSecurityLevel" oor:op="fuse"><value>3</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="DisableMacrosExecution" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="BlockUntrustedRefererLinks" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Load"><prop oor:name="UpdateDocumentMode" oor:op="fuse"><value>0</value></prop></item>
</oor:items>`;

/** Turns slides and texts into PDF with LibreOffice, one at a time per core, each in a process of its own. */
@Injectable()
export class OfficeConverter implements OnModuleInit, OnModuleDestroy {
  private readonly turns = new FairTurns(availableParallelism());
  private queue: ConversionQueue | undefined;

  constructor(
    private readonly settings: Settings,
    private readonly strangers: StrangersService,
    private readonly files: FileStore,
    private readonly database: Database,
  ) {}

  async onModuleInit(): Promise<void> {
    await endLeftovers(this.prefix);
    const { redis, database, officeSeconds } = this.settings;
    if (redis === undefined) return;
    this.queue = new ConversionQueue({
      url: redis,
      namespace: namespaceOf(database),
      places: availableParallelism(),
      patienceMs: officeSeconds * 1000 * MOST_BEFORE,
      work: (task, signal) => this.convertStored(task, signal),
    });
  }

  async onModuleDestroy(): Promise<void> {
    await this.queue?.close();
  }

  /** How many documents wait for a process. */
  async waiting(): Promise<number> {
    return (await this.queue?.waiting()) ?? 0;
  }

  /** Of processes that share a data folder, each has its own. */
  private get prefix(): string {
    const { data, redis, port } = this.settings;
    return leftoverPrefix(redis === undefined ? data : join(data, String(port)));
  }

  /** Writes a PDF beside the file and returns its path. Throws Problem with what to do. */
  async toPdf(path: string, kind: DocumentKind, turn: TurnOptions): Promise<string> {
    if (this.queue) {
      try {
        return await this.convertAnywhere(this.queue, path, kind, turn);
      } catch (error) {
        // Without the queue each process does its own.
        if (!(error instanceof QueueAwayError)) throw error;
      }
    }
    return this.turns.run(turn, () => this.convert(path, kind, turn));
  }

  /** By whichever process is free. */
  private async convertAnywhere(
    queue: ConversionQueue,
    path: string,
    kind: DocumentKind,
    turn: TurnOptions,
  ): Promise<string> {
    const copy = join(this.files.incoming, randomUUID());
    await copyFile(path, copy);
    const sha256 = await this.passing(this.files.takeMade(copy));
    const done = await queue.run({ sha256, kind, owner: turn.owner }, turn);
    if ('refused' in done) throw new Problem(done.refused.status, done.refused.code, done.refused.message);
    const target = `${path}.pdf`;
    await copyFile(await this.files.local(done.pdf), target);
    return target;
  }

  private async convertStored({ sha256, kind, owner }: Conversion, signal: AbortSignal): Promise<Converted> {
    const path = join(this.files.incoming, randomUUID());
    try {
      await copyFile(await this.files.local(sha256), path);
      const pdf = await this.convert(path, kind, { owner, signal });
      return { pdf: await this.passing(this.files.takeMade(pdf)) };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return { refused: { status: error.getStatus(), code: error.code, message: error.message } };
    } finally {
      await rm(path, { force: true });
    }
  }

  /** Stored for the way alone: cleared away with what nothing names. */
  private async passing(stored: Promise<string>): Promise<string> {
    const sha256 = await stored;
    await this.database.together([
      'INSERT INTO gone_file (sha256, at) VALUES (?, ?) ON CONFLICT (sha256) DO UPDATE SET at = excluded.at',
      [sha256, Date.now()],
    ]);
    return sha256;
  }

  private async convert(path: string, kind: DocumentKind, turn: TurnOptions): Promise<string> {
    const folder = await mkdtemp(join(tmpdir(), this.prefix));
    try {
      const source = await this.sourceFor(path, kind, folder, turn);
      const profile = join(folder, 'profile');
      await mkdir(join(profile, 'user'), { recursive: true });
      await writeFile(join(profile, 'user', 'registrymodifications.xcu'), PROFILE);
      await this.run(source, profile, folder, turn.signal);
      const made = (await readdir(folder)).find((name) => name.endsWith('.pdf'));
      if (!made) throw cannotBeRead();
      const target = `${path}.pdf`;
      await copyFile(join(folder, made), target);
      return target;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  /** The file under a name that the converter understands; texts become web pages first. */
  private async sourceFor(
    path: string,
    kind: DocumentKind,
    folder: string,
    turn: TurnOptions,
  ): Promise<string> {
    if (kind === 'md' || kind === 'txt') {
      const source = join(folder, 'document.html');
      await writeFile(source, await this.strangers.textAsHtml(path, kind, turn));
      return source;
    }
    const source = join(folder, `document.${kind}`);
    await copyFile(path, source);
    return source;
  }

  private run(source: string, profile: string, folder: string, signal?: AbortSignal): Promise<void> {
    const seconds = this.settings.officeSeconds;
    // It ends by itself at its limits of time, also where nobody is left to end it.
    const limits = `ulimit -v ${MAX_MEMORY_KB}; ulimit -t ${seconds}`;
    const command = [
      ...['timeout', '-s', 'KILL', `${seconds + 5}`, 'nice', '-n', '10'],
      ...['soffice', `-env:UserInstallation=${pathToFileURL(profile).href}`],
      ...['--headless', '--norestore', '--nolockcheck', '--nodefault', '--nologo'],
      ...(source.endsWith('.html') ? FROM_TEXT : ['--convert-to', 'pdf']),
      ...['--outdir', folder, source],
    ];
    return new Promise((resolve, reject) => {
      // A group of its own, so that all its processes can be killed together; no proxy answers there.
      const child = spawn('sh', ['-c', `${limits}; exec "$@"`, 'sh', ...command], {
        detached: true,
        stdio: 'ignore',
        env: {
          PATH: process.env.PATH,
          HOME: folder,
          TMPDIR: folder,
          http_proxy: NOWHERE,
          https_proxy: NOWHERE,
        },
      });
      const kill = () => {
        try {
          if (child.pid !== undefined) process.kill(-child.pid, 'SIGKILL');
        } catch {
          // It has ended by itself in this very moment.
        }
      };
      const timer = setTimeout(() => {
        kill();
        reject(
          new Problem(
            422,
            'conversion-too-slow',
            'This document takes too long to turn into pages. Please save it as PDF and choose that one.',
          ),
        );
      }, seconds * 1000);
      const abort = () => {
        kill();
        reject(signal!.reason as Error);
      };
      signal?.addEventListener('abort', abort);
      child.on('error', () => reject(cannotBeRead()));
      child.on('exit', (code) => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', abort);
        if (code === NOT_FOUND) reject(notInstalled());
        else if (code === 0) resolve();
        else reject(cannotBeRead());
      });
    });
  }
}

/** The filter for web pages begins with an empty page and loses what was to be on it. */
const FROM_TEXT = ['--infilter=HTML (StarWriter)', '--convert-to', 'pdf:writer_pdf_Export'];
const NOWHERE = 'http://127.0.0.1:9';
/** What a shell answers where there is no such program (POSIX.1-2017, 2.8.2). */
const NOT_FOUND = 127;

function cannotBeRead(): Problem {
  return new Problem(
    422,
    'not-converted',
    'This document cannot be turned into pages. Please open it in the program it was made with, save it as PDF, and choose that one.',
  );
}

function notInstalled(): Problem {
  return new Problem(
    501,
    'no-office',
    'Slides and texts need LibreOffice on the server (on Debian: apt-get install libreoffice-impress-nogui libreoffice-writer-nogui). Until then, please save the document as PDF and choose that one.',
  );
}
