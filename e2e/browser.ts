import { type Browser, chromium } from 'playwright-core';
import { lanAddresses } from '../web/lan.js';

const ours = ['127.0.0.1', ...lanAddresses()];

/** Debian's Chromium, headless, kept from asking anything of any host but this machine. */
export const openBrowser = (): Promise<Browser> =>
  chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      `--host-resolver-rules=${['MAP * ~NOTFOUND', ...ours.map((address) => `EXCLUDE ${address}`)].join(' , ')}`,
    ],
  });
