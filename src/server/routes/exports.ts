import type { NextFunction, Request, Response } from 'express';
import { idSchema } from '#contracts/common';
import type { PLAIN_PATHS } from '#contracts/http';
import { Failure } from '../platform/failure';
import { unitCsv, unitExport } from '../catalogue/unit-export';
import type { Application } from '../wiring';
import { plain, type Site } from './handle';

/** Downloads in open formats. */
export function exportRoutes(site: Site, { catalogue, sweeps }: Application): void {
  const download = (
    name: keyof typeof PLAIN_PATHS,
    answer: (id: string, response: Response) => Promise<void>,
  ): void => {
    plain(site, name, async (request: Request, response: Response, next: NextFunction) => {
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

  download('unitJson', async (id, response) => {
    const sheet = await catalogue.sheet(id);
    named(response, `${sheet.row.maker} ${sheet.row.model} ${sheet.row.label}.json`).json(unitExport(sheet));
  });
  download('unitCsv', async (id, response) => {
    const sheet = await catalogue.sheet(id);
    const name = `${sheet.row.maker} ${sheet.row.model} ${sheet.row.label}.csv`;
    named(response, name)
      .type('text/csv; charset=utf-8')
      .send(unitCsv(unitExport(sheet)));
  });
  download('responseText', async (id, response) => {
    const { name, text } = await sweeps.text(id);
    named(response, `${name}.txt`).type('text/plain; charset=utf-8').send(text);
  });
  download('impulseWav', async (id, response) => {
    const { name, wav } = await sweeps.impulse(id);
    named(response, `${name} impulse.wav`).type('audio/wav').send(Buffer.from(wav));
  });
}
