import type { Express, NextFunction, Request, Response } from 'express';
import { idSchema } from '#contracts/common';
import { PLAIN_PATHS } from '#contracts/http';
import { Failure } from '../failures';
import { unitCsv, unitExport } from '../services/unit-export';
import type { Application } from '../wiring';

/** Downloads in open formats. */
export function exportRoutes(app: Express, { catalogue, sweeps }: Application): void {
  const download = (path: string, answer: (id: string, response: Response) => Promise<void>): void => {
    app.get(path, async (request: Request, response: Response, next: NextFunction) => {
      try {
        const id = idSchema.safeParse(request.params['id']);
        if (!id.success) throw new Failure('not-found', 'There is nothing with this number.');
        await answer(id.data, response);
      } catch (error) {
        next(error);
      }
    });
  };
  const named = (response: Response, name: string): Response =>
    response.attachment(name.toLowerCase().replaceAll(/[^a-z0-9.]+/g, '-'));

  download(PLAIN_PATHS.unitJson, async (id, response) => {
    const sheet = await catalogue.sheet(id);
    named(response, `${sheet.row.maker} ${sheet.row.model} ${sheet.row.label}.json`).json(unitExport(sheet));
  });
  download(PLAIN_PATHS.unitCsv, async (id, response) => {
    const sheet = await catalogue.sheet(id);
    const name = `${sheet.row.maker} ${sheet.row.model} ${sheet.row.label}.csv`;
    named(response, name)
      .type('text/csv; charset=utf-8')
      .send(unitCsv(unitExport(sheet)));
  });
  download(PLAIN_PATHS.responseText, async (id, response) => {
    const { name, text } = await sweeps.text(id);
    named(response, `${name}.txt`).type('text/plain; charset=utf-8').send(text);
  });
  download(PLAIN_PATHS.impulseWav, async (id, response) => {
    const { name, wav } = await sweeps.impulse(id);
    named(response, `${name} impulse.wav`).type('audio/wav').send(Buffer.from(wav));
  });
}
