import type { Request, Response } from 'express';
import multer, { MulterError } from 'multer';
import { Problem } from '../http/problem.js';

export interface Upload {
  path: string;
  /** Name of the file on the teacher's device. */
  name: string;
}

/** Receives one file of a multipart request into a folder. Throws Problem with what to do. */
export async function receiveUpload(
  request: Request,
  response: Response,
  folder: string,
  maxMb: number,
): Promise<Upload> {
  const receive = multer({
    dest: folder,
    limits: { fileSize: maxMb * 1_000_000, files: 1, fields: 4, fieldSize: 1000 },
    defParamCharset: 'utf8',
  }).single('file');
  await new Promise<void>((resolve, reject) => {
    receive(request, response, (error: unknown) => {
      if (error) reject(problemOf(error, maxMb));
      else resolve();
    });
  });
  if (!request.file) throw new Problem(400, 'no-file', 'No file arrived. Please choose a PDF.');
  return { path: request.file.path, name: request.file.originalname };
}

function problemOf(error: unknown, maxMb: number): Problem {
  if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE') {
    return new Problem(
      413,
      'too-large',
      `This file is larger than ${maxMb} MB. Please make it smaller, or split it, and choose one part.`,
    );
  }
  return new Problem(
    400,
    'broken-upload',
    'The upload broke off. Please check the connection and choose the file again.',
  );
}
