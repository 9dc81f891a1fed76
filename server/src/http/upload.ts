import type { Request, Response } from 'express';
import multer, { MulterError } from 'multer';
import { Problem } from './problem.js';
import { schoolFull } from './schoolFull.js';
import { diskFull, isFull } from '../storage/diskSpace.js';
import type { FileStore } from '../storage/fileStore.js';
import type { IncomingFile } from '../storage/incomingFiles.js';
import { IncomingFiles } from '../storage/incomingFiles.js';

/** How large a file may be that comes in. */
export interface UploadLimits {
  /** Megabytes of 1,000,000 bytes. */
  maxMb: number;
  /** Bytes that there is room for. */
  room: number;
}

export interface Upload extends IncomingFile {
  /** Name of the file on the teacher's device. */
  name: string;
}

/** Receives one file of a multipart request into the incoming folder. Throws Problem with what to do. */
export async function receiveUpload(
  request: Request,
  response: Response,
  files: FileStore,
  { maxMb, room }: UploadLimits,
): Promise<Upload> {
  await files.checkRoom();
  const most = maxMb * 1_000_000;
  const receive = multer({
    storage: new IncomingFiles(files.incoming),
    limits: { fileSize: Math.min(most, room), files: 1, fields: 4, fieldSize: 1000 },
    defParamCharset: 'utf8',
  }).single('file');
  await new Promise<void>((resolve, reject) => {
    receive(request, response, (error: unknown) => {
      if (error) reject(problemOf(error, maxMb, room < most));
      else resolve();
    });
  });
  if (!request.file) throw new Problem(400, 'no-file', 'No file arrived. Please choose a PDF.');
  const { path, size, originalname } = request.file;
  const { sha256 } = request.file as unknown as IncomingFile;
  return { path, size, sha256, name: originalname };
}

function problemOf(error: unknown, maxMb: number, isRoomLess: boolean): Problem {
  if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE') {
    if (isRoomLess) return schoolFull();
    return new Problem(
      413,
      'file-too-large',
      `This file is larger than ${maxMb} MB. Please make it smaller, or split it, and choose one part.`,
      { maxMb },
    );
  }
  if (isFull(error)) return diskFull();
  return new Problem(
    400,
    'broken-upload',
    'The upload broke off. Please check the connection and choose the file again.',
  );
}
