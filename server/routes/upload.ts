import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { cleanBody } from '../clean-input.ts';
import { HttpRefusal } from '../http-refusal.ts';

/** The words of a form come after those of the address were looked at. */
function cleanWords(request: Request): void {
  request.body = cleanBody(request.body);
  if (request.file) request.file.originalname = String(cleanBody(nameOf(request.file)));
}

let folder: Promise<string> | undefined;
/** Files that are on their way in: in a folder of this process's own, under names of ours. */
const onTheWay = multer.diskStorage({
  destination: (_request, _file, taken) => {
    (folder ??= mkdtemp(join(tmpdir(), `suvok-uploads-${process.pid}-`))).then(
      (place) => taken(null, place),
      (error: Error) => {
        folder = undefined;
        taken(error, '');
      },
    );
  },
  filename: (_request, _file, taken) => taken(null, randomUUID()),
});

/**
 * Takes one file, in the field `file`, and a few words beside it; a form that is broken is refused.
 * @param where a large one goes to the disk, and whoever takes it removes it
 */
export function upload(megabytes: number, fields = 4, where: 'memory' | 'disk' = 'memory'): RequestHandler {
  const storage = where === 'disk' ? onTheWay : multer.memoryStorage();
  const take = multer({ storage, limits: { fileSize: megabytes * 1e6, files: 1, fields } }).single('file');
  // What is thrown in multer's own callback would end the process: here it is one request's refusal.
  return async (request, response, next) => {
    await new Promise<void>((resolve, reject) =>
      take(request, response, (error: unknown) => (error ? reject(refusalOf(error)) : resolve())),
    );
    try {
      cleanWords(request);
    } catch (error) {
      if (request.file?.path) await rm(request.file.path, { force: true });
      throw error;
    }
    next();
  };
}

/** Limits have a code and a sentence of their own; what is left is a form that is not one. */
function refusalOf(error: unknown): unknown {
  if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
    return new HttpRefusal(507, 'There is no room on this machine’s disk for the file. Nothing was stored.');
  if (error instanceof Error && !(error instanceof multer.MulterError && error.code.startsWith('LIMIT_')))
    return new HttpRefusal(
      400,
      'The form did not arrive whole, or is not well formed. Nothing was stored; send it again.',
    );
  return error;
}

/** Browsers send file names as UTF-8 bytes, which multipart reads as Latin-1. */
function nameOf(file: { originalname: string }): string {
  return Buffer.from(file.originalname, 'latin1').toString('utf8');
}
