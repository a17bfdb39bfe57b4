import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';

// OWASP Password Storage Cheat Sheet, from memory: argon2id with 19 MiB, two passes, one lane.
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashOf = (secret: string): Promise<string> => hash(secret, cost);

let nobody: Promise<string> | undefined;

/** Whether the secret fits. Takes as long when there is nothing to compare with, so that time tells nothing. */
export async function fits(secret: string, kept: string | null | undefined): Promise<boolean> {
  const same = await verify(kept ?? (await (nobody ??= hashOf('nobody'))), secret);
  return same && kept !== null && kept !== undefined;
}

/** What a cookie holds; the database keeps only its hash. */
export const freshToken = (): string => randomBytes(24).toString('base64url');
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');
