import { z } from 'zod';
import { clipSchema } from './clip';
import { serverEventSchema } from './events';
import { ENDPOINTS, PLAIN_PATHS, type Endpoint } from './http';
import { problemSchema } from './problem';

type Json = Record<string, unknown>;

const json = (schema: z.ZodType, io: 'input' | 'output'): Json => ({
  'application/json': { schema: z.toJSONSchema(schema, { io, unrepresentable: 'any' }) },
});
const openApiPath = (path: string): string => path.replace(/:(\w+)/g, '{$1}');
const parameters = (path: string): Json[] =>
  [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({ name, in: 'path', required: true, schema: { type: 'string' } }));
const problemResponse: Json = {
  description: 'What happened, what is safe, what to do',
  content: json(problemSchema, 'output'),
};

/** The HTTP interface as an OpenAPI 3.1 document, made from the contracts. */
export function openApiDocument(version: string): Json {
  const paths: Record<string, Json> = {};
  for (const [operationId, endpoint] of Object.entries(ENDPOINTS) as [
    string,
    Endpoint<z.ZodType, z.ZodType, z.ZodType>,
  ][]) {
    const operation: Json = {
      operationId,
      summary: endpoint.summary,
      parameters: parameters(endpoint.path),
      responses: { 200: { description: 'Done', content: json(endpoint.answer, 'output') }, default: problemResponse },
    };
    if (!(endpoint.body instanceof z.ZodUndefined))
      operation['requestBody'] = { required: true, content: json(endpoint.body, 'input') };
    const path = openApiPath(endpoint.path);
    paths[path] = { ...paths[path], [endpoint.method]: operation };
  }
  paths[PLAIN_PATHS.upload] = {
    post: {
      operationId: 'uploadClip',
      summary: 'Upload a WAV or FLAC file as the body of the request',
      parameters: [
        { name: 'name', in: 'query', required: true, schema: { type: 'string' } },
        {
          name: 'keepPart',
          in: 'query',
          required: false,
          description: 'Keep what is there of a truncated file',
          schema: { enum: ['1'] },
        },
      ],
      requestBody: {
        required: true,
        content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
      },
      responses: { 200: { description: 'Stored', content: json(clipSchema, 'output') }, default: problemResponse },
    },
  };
  paths[openApiPath(PLAIN_PATHS.audio)] = {
    get: {
      operationId: 'clipAudio',
      summary: 'The clip itself, whole or by ranges',
      parameters: parameters(PLAIN_PATHS.audio),
      responses: { 200: { description: 'The file' }, 206: { description: 'A part of it' }, default: problemResponse },
    },
  };
  paths[PLAIN_PATHS.events] = {
    get: {
      operationId: 'events',
      summary: 'What happens, as server-sent events',
      responses: {
        200: { description: 'Events', content: { 'text/event-stream': { schema: z.toJSONSchema(serverEventSchema) } } },
      },
    },
  };
  return { openapi: '3.1.0', info: { title: 'Sediment', version }, paths };
}
