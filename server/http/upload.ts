import type { RequestHandler } from 'express';
import multer, { type Multer } from 'multer';
import { nanoid } from 'nanoid';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Problem } from '../../core/tape/problem.ts';

/** Takes files into the folder of uploads, each by a name that nobody else has. @param limit largest file in MB */
export function uploadInto(dir: string, limit: number): Multer {
  const folder = join(dir, 'uploads');
  const storage = multer.diskStorage({
    destination: (_request, _file, done) => {
      mkdirSync(folder, { recursive: true });
      done(null, folder);
    },
    filename: (_request, _file, done) => done(null, nanoid(16)),
  });
  return multer({ storage, limits: { fileSize: limit * 2 ** 20, files: 1 } });
}

/** Takes the one file of a form. A form that is none, or is cut off, is the client's fault and said to be that. */
export function oneFile(upload: Multer): RequestHandler {
  const take = upload.single('file');
  return (request, response, next) => {
    void take(request, response, (error: unknown) => {
      // What the system says has a code, such as that there is no space; what the form lacks has none.
      const ofForm = error instanceof Error && !(error instanceof multer.MulterError) && !('code' in error);
      next(
        ofForm
          ? new Problem('wrong-upload', `The upload cannot be read: ${error.message}.`, {
              field: 'file',
              rule: 'a form (multipart/form-data) with one file',
            })
          : error,
      );
    });
  };
}
