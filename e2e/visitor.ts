import type { Page } from 'playwright-core';
import { demoShop } from '../web/src/lib/server/demo/shop.ts';

const demoPin = (name: string): string => demoShop.people.find((person) => person.name === name)!.pin;

/** Opens an address of the application, and waits until the page's script acts: what is pressed before is lost. */
export async function openAt(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page.waitForSelector('html[data-ready]');
}

/** Signs a demo person in at a page, as at the bench: the name, the PIN, Enter. */
export async function signInAt(page: Page, url: string, name: string, pin = demoPin(name)): Promise<void> {
  await openAt(page, `${url}/sign-in`);
  await page.check(`label:has-text("${name}") input`);
  await page.fill('input[name="pin"]', pin);
  await page.keyboard.press('Enter');
  await page.waitForURL((address) => address.pathname === '/');
  await page.waitForSelector('html[data-ready]');
}

const form = (fields: Record<string, string>, origin: string): RequestInit => ({
  method: 'POST',
  headers: { origin, 'content-type': 'application/x-www-form-urlencoded' },
  body: new URLSearchParams(fields),
  redirect: 'manual',
});

/** Somebody signed in without a browser: asks and writes as a page of theirs would. */
export class Visitor {
  readonly url: string;
  /** Id of the person. */
  readonly id: string;
  readonly cookie: string;

  constructor(url: string, id: string, cookie: string) {
    this.url = url;
    this.id = id;
    this.cookie = cookie;
  }

  /** The ids of who may sign in, by name. */
  static async names(url: string): Promise<Map<string, string>> {
    const html = await (await fetch(`${url}/sign-in`)).text();
    const found = html.matchAll(/value="([0-9a-f-]{36})"[\s\S]*?<span[^>]*>([^<]+)<\/span>/g);
    return new Map([...found].map(([, id, name]) => [name!, id!]));
  }

  static async tryPin(url: string, who: string, pin: string): Promise<Response> {
    return fetch(`${url}/sign-in?/pin`, form({ who, pin }, url));
  }

  static async signIn(url: string, name = 'Wenna Oskarby'): Promise<Visitor> {
    const id = (await Visitor.names(url)).get(name);
    if (!id) throw new Error(`${name} is not on the sign-in page of ${url}`);
    const answer = await Visitor.tryPin(url, id, demoPin(name));
    const cookie = answer.headers.getSetCookie().find((set) => set.startsWith('session='));
    if (!cookie?.match(/^session=[^;]/)) throw new Error(`${name} was not let in: ${answer.status}`);
    return new Visitor(url, id, cookie.split(';')[0]!);
  }

  /** A question; asked again when a connection kept open since before a restart turns out dead. */
  ask(path: string): Promise<Response> {
    const asked = () => fetch(this.url + path, { headers: { cookie: this.cookie }, redirect: 'manual' });
    return asked().catch(asked);
  }

  send(method: 'POST' | 'PATCH', path: string, body: unknown, headers: Record<string, string> = {}): Promise<Response> {
    return fetch(this.url + path, {
      method,
      headers: { 'content-type': 'application/json', origin: this.url, cookie: this.cookie, ...headers },
      body: JSON.stringify(body),
    });
  }

  submit(path: string, fields: Record<string, string>): Promise<Response> {
    const { headers, ...rest } = form(fields, this.url);
    return fetch(this.url + path, { ...rest, headers: { ...(headers as object), cookie: this.cookie } });
  }
}
