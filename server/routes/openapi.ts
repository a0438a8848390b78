import { z } from 'zod';
import { endpoints } from '../../contract/requests/api.ts';
import type { Endpoint } from '../../contract/values/endpoint.ts';
import { curveJson } from '../../contract/files/curve.ts';
import { refusal } from '../../contract/values/answers.ts';
import { baysState, bayState } from '../../contract/bays/live.ts';
import { job, run, setup } from '../../contract/job/records.ts';
import { vehicleWithAll } from '../../contract/shop/vehicles.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Schemas that are named once and referred to. */
const named = {
  Job: job,
  Setup: setup,
  Run: run,
  Vehicle: vehicleWithAll,
  Curve: curveJson,
  Bay: bayState,
  Bays: baysState,
  Refusal: refusal,
};

/** Without the line that names the dialect: OpenAPI 3.1 has one for all. */
function plainSchema(schema: z.ZodType, io: 'input' | 'output'): object {
  return Object.fromEntries(
    Object.entries(z.toJSONSchema(schema, { io, unrepresentable: 'any' })).filter(([key]) => key !== '$schema'),
  );
}

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): object {
  const name = Object.entries(named).find(([, candidate]) => candidate === schema)?.[0];
  if (name && io === 'output') return { $ref: `#/components/schemas/${name}` };
  return plainSchema(schema, io);
}

const json = (schema: object) => ({ 'application/json': { schema } });

function bodyOf({ body, form }: Endpoint): object {
  if (body) return { requestBody: { required: true, content: json(schemaOf(body, 'input')) } };
  if (!form) return {};
  const properties = Object.fromEntries(
    form.map((field) => [field, field === 'file' ? { type: 'string', format: 'binary' } : { type: 'string' }]),
  );
  return {
    requestBody: {
      required: true,
      content: { 'multipart/form-data': { schema: { type: 'object', properties, required: ['file'] } } },
    },
  };
}

function operation(endpoint: Endpoint): object {
  const { does, path, query = [], answer, binary, method } = endpoint;
  const parameters = [
    ...(path.includes(':id')
      ? [{ name: 'id', in: 'path', required: true, schema: { type: 'integer', minimum: 1 } }]
      : []),
    ...query.map((name) => ({ name, in: 'query', required: false, schema: { type: 'string' } })),
  ];
  const status =
    !answer && !binary
      ? '204'
      : method === 'post' && !/^\/(bays\/|device\/|plain-instrument)/.test(path)
        ? '201'
        : '200';
  const content = answer
    ? { content: json(schemaOf(answer, 'output')) }
    : binary
      ? { content: { [binary]: { schema: { type: 'string', format: 'binary' } } } }
      : {};
  return {
    summary: does,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...bodyOf(endpoint),
    responses: {
      [status]: { description: 'Done.', ...content },
      default: { description: 'Refused, with a sentence.', content: json({ $ref: '#/components/schemas/Refusal' }) },
    },
  };
}

/** The whole API as OpenAPI 3.1, made from the schemas that the server itself checks with. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const endpoint of endpoints) {
    const path = endpoint.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[endpoint.method] = operation(endpoint);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Suvok',
      version: '1',
      description:
        'Answers on loopback only. A refusal is a sentence; a conflict (409) carries what is stored now. Answers to changes carry the header suvok-act, which undoes them.',
    },
    servers: [{ url: '/api' }],
    paths,
    components: {
      schemas: Object.fromEntries(
        Object.entries(named).map(([name, schema]) => {
          return [name, plainSchema(schema, 'output')];
        }),
      ),
    },
  };
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

function fieldsOf(schema: z.ZodType | undefined): string {
  if (!schema) return '';
  const { properties, required = [] } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return Object.keys(properties ?? {})
    .map((field) => (required.includes(field) ? `<b>${field}</b>` : field))
    .join(', ');
}

/** The same list to be read, without a script. */
function readablePage(): string {
  const rows = endpoints.map(
    ({ method, path, does, query, body, form }) =>
      `<tr><td><code>${method.toUpperCase()}</code><td><code>/api${path === '/' ? '' : escaped(path)}</code><td>${escaped(does)}<br><small>${[
        query && `query: ${query.join(', ')}`,
        body && `body: ${fieldsOf(body)}`,
        form && `form: ${form.join(', ')}`,
      ]
        .filter(Boolean)
        .join(' · ')}</small>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Suvok, its API</title>
<style>body{font:15px/1.5 sans-serif;max-width:1000px;margin:40px auto;padding:0 20px;background:#f4f2ed;color:#1b2126}
td{padding:7px 14px 7px 0;border-bottom:1px solid #dcd7cc;vertical-align:top}small{color:#565e66}table{border-collapse:collapse}a{color:inherit}</style>
<h1>Suvok, its API</h1><p>JSON in and out; what must be given is <b>bold</b>. A refusal is <code>{"error": "a sentence", "field", "current"}</code>.
Answers to changes carry <code>suvok-act</code>: <code>POST /api/acts/…/undo</code> takes them back. As <a href="/api/openapi.json">OpenAPI 3.1</a>.</p>
<table>${rows.join('\n')}</table></html>`;
}

function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

export function openApiRoutes(routes: ContractRoutes): void {
  // Both follow from the contract alone: made once, at the first ask.
  const description = once(() => JSON.stringify(openApi()));
  const page = once(readablePage);
  routes.get('/openapi.json', (_request, response) => {
    response.type('json').send(description());
  });
  routes.get('/', (_request, response) => {
    response.type('html').send(page());
  });
}
