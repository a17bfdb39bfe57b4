import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { machineSchema } from '@refectum/core/record';
import { boolean, type InferType, number, object, type Schema, string, ValidationError } from 'yup';
import { readScenario } from './bench/index.ts';
import { type House, type InstrumentName, instrumentNames } from './house.ts';
import { ScpiError } from './scpi/index.ts';

const page = readFileSync(new URL('page.html', import.meta.url));
const folder = new URL('../scenarios/', import.meta.url);

/** The scenarios that ship with it, by file name. */
export const scenarios = (): Record<string, { readonly name: string }> =>
  Object.fromEntries(
    readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()
      .map((name) => [name, JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as { name: string }]),
  );

const place = () => string().max(40);
const handsSchema = object({
  red: place(),
  black: place(),
  together: boolean().default(false),
  feed: object({
    plus: place().required(),
    minus: place().required(),
    seriesOhms: number().required().min(0.1).max(1000),
  }).default(undefined),
  assembly: string().max(40).default('closed'),
  jumper: boolean().default(false),
});
const unitSchema = object({ tag: number().integer().required(), machine: machineSchema });
const instrumentSchema = object({
  name: string<InstrumentName>().oneOf(instrumentNames).required(),
  on: boolean(),
  knob: string().max(40),
  noise: number().min(0).max(1000),
});

const longestBody = 64 * 1024;
async function bodyOf(request: IncomingMessage): Promise<unknown> {
  let text = '';
  for await (const piece of request.setEncoding('utf8')) {
    text += String(piece);
    if (text.length > longestBody) throw new RangeError('That is more than is taken at once.');
  }
  return JSON.parse(text) as unknown;
}

/** The hands and the secrets of the simulated bench: a small page, and what it and the application ask. */
export function control(house: House): Server {
  const { bench, multimeter } = house;
  const state = () => ({
    scenario: bench.scenario,
    scenarios: Object.entries(scenarios()).map(([file, { name }]) => ({
      file,
      name,
    })),
    tag: bench.tag,
    hidden: bench.hidden.map(({ fault, severity }) => ({ id: fault.id, name: fault.name, severity })),
    hands: bench.hands,
    rpm: Math.round(bench.rpm),
    load: bench.load,
    command: bench.commanded === undefined ? 'none' : `${Math.round(100 * bench.commanded)} %`,
    noise: multimeter.noise,
    instruments: instrumentNames.map((name) => ({ name, port: house.portOf(name), on: house.isOn(name) })),
  });
  const taking =
    <S extends Schema>(schema: S, act: (given: InferType<S>) => void | Promise<void>) =>
    async (request: IncomingMessage): Promise<void> =>
      act((await schema.validate(await bodyOf(request))) as InferType<S>);
  const posts: Readonly<Record<string, (request: IncomingMessage) => Promise<void>>> = {
    '/hands': taking(handsSchema, (hands) => bench.move(hands as never)),
    '/unit': taking(unitSchema, ({ tag, machine }) => bench.clamp(tag, machine as never)),
    '/instrument': taking(instrumentSchema, async ({ name, on, knob, noise }) => {
      if (knob !== undefined) multimeter.turnKnob(knob);
      if (noise !== undefined) multimeter.noise = noise;
      if (on !== undefined) await house.power(name, on);
    }),
    '/scenario': async (request) => {
      const given = await bodyOf(request);
      const file = (given as { file?: string }).file;
      bench.play(await readScenario(file === undefined ? given : scenarios()[file]));
    },
  };
  const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const json = (status: number, body: unknown) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
    const path = request.url ?? '/';
    if (!isOurs(request)) return void json(403, { message: 'This page is for the machine it runs on.' });
    if (request.method === 'GET' && path === '/')
      return void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page);
    if (request.method === 'GET' && path === '/state') return void json(200, state());
    const post = request.method === 'POST' ? posts[path] : undefined;
    if (!post) return void json(404, { message: `There is nothing at ${path}.` });
    try {
      await post(request);
      json(200, state());
    } catch (cause) {
      const expected = [ValidationError, RangeError, SyntaxError, ScpiError].some((kind) => cause instanceof kind);
      if (!expected) console.error(cause);
      json(expected ? 422 : 500, { message: (cause as Error).message });
    }
  };
  return createServer((request, response) => void answer(request, response));
}

/** Another site's page must not move the hands: only our own names, and no foreign origin. */
function isOurs({ headers: { host = '', origin } }: IncomingMessage): boolean {
  const name = host.replace(/:\d+$/, '');
  return ['127.0.0.1', 'localhost'].includes(name) && (origin === undefined || origin === `http://${host}`);
}
