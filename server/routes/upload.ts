import type { Request, RequestHandler } from 'express';
import multer from 'multer';
import { cleanBody } from '../clean-input.ts';
import { HttpRefusal } from '../http-refusal.ts';

/** The words of a form come after those of the address were looked at. */
function cleanWords(request: Request): void {
  request.body = cleanBody(request.body);
  if (request.file) request.file.originalname = String(cleanBody(nameOf(request.file)));
}

/** Takes one file, in the field `file`, and a few words beside it; a form that is broken is refused. */
export function upload(megabytes: number, fields = 4): RequestHandler {
  const take = multer({ storage: multer.memoryStorage(), limits: { fileSize: megabytes * 1e6, files: 1, fields } }).single('file'); // prettier-ignore
  return (request, response, next) =>
    take(request, response, (error: unknown) => {
      // Limits have a code and a sentence of their own; what is left is a form that is not one.
      if (error instanceof Error && !(error instanceof multer.MulterError))
        return next(new HttpRefusal(400, 'The form did not arrive whole, or is not well formed. Nothing was stored; send it again.')); // prettier-ignore
      if (error) return next(error);
      cleanWords(request);
      next();
    });
}

/** Browsers send file names as UTF-8 bytes, which multipart reads as Latin-1. */
function nameOf(file: { originalname: string }): string {
  return Buffer.from(file.originalname, 'latin1').toString('utf8');
}
