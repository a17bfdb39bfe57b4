import { randomInt } from 'node:crypto';
import { addMinutes } from 'date-fns';
import { and, asc, eq, gt, isNull, lt } from 'drizzle-orm';
import sharp from 'sharp';
import { database, type Queryable } from './db/connect.ts';
import { job, picture, pictureCode, technician } from './db/schema.ts';
import { announce } from './live.ts';
import { tokenHash } from './people/secrets.ts';
import { Refused } from './refused.ts';
import type { PrintedPictures } from './report-pdf.ts';

/** Bytes as sent; edges in pixels as kept. */
const largest = 12 * 1024 * 1024;
const mostPixels = 80_000_000;
const wholeEdge = 2000;
const smallEdge = 480;
const mostPerJob = 60;
const mostPrinted = 9;
const formats = ['jpeg', 'png', 'webp'];

/** Turned upright, made small enough, and without what the camera wrote into it: place, time, owner. */
async function developed(sent: Uint8Array): Promise<{ whole: Buffer; small: Buffer }> {
  if (sent.length > largest)
    throw new Refused(413, 'That picture is larger than 12 MB: let the camera take smaller ones.');
  try {
    const image = sharp(sent, { limitInputPixels: mostPixels, failOn: 'error' });
    const { format } = await image.metadata();
    if (!formats.includes(format)) throw new Error(`a ${format}`);
    const within = (edge: number) =>
      image
        .clone()
        .rotate()
        .resize({ width: edge, height: edge, fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#ffffff' })
        .jpeg({ quality: 82 })
        .toBuffer();
    return { whole: await within(wholeEdge), small: await within(smallEdge) };
  } catch {
    throw new Refused(415, 'That is no picture that can be read: a JPEG, PNG or WebP is.');
  }
}

export interface PictureEntry {
  readonly id: string;
  readonly caption: string;
  readonly sent: Uint8Array;
}

/** Adds a picture; sent twice it is one. */
export async function addPicture(
  jobId: string,
  technicianId: string,
  { id, caption, sent }: PictureEntry,
): Promise<void> {
  const { whole, small } = await developed(sent);
  await database().transaction(async (db) => {
    const [of] = await db.select().from(job).where(eq(job.id, jobId)).for('update');
    if (!of) throw new Refused(404, 'That unit is not in this shop.');
    if (await db.$count(picture, eq(picture.id, id))) return;
    if ((await db.$count(picture, eq(picture.jobId, jobId))) >= mostPerJob)
      throw new Refused(409, `A unit has at most ${mostPerJob} pictures.`);
    await db.insert(picture).values({ id, jobId, caption, whole, small, takenAt: new Date(), technicianId });
    await announce(db, of.tag);
  });
}

export interface PictureFacts {
  readonly id: string;
  readonly caption: string;
  readonly at: string;
  readonly technician: string;
  readonly struck: boolean;
}

export async function listPictures(jobId: string): Promise<PictureFacts[]> {
  const rows = await database()
    .select({
      id: picture.id,
      caption: picture.caption,
      takenAt: picture.takenAt,
      technician: technician.name,
      struckAt: picture.struckAt,
    })
    .from(picture)
    .innerJoin(technician, eq(technician.id, picture.technicianId))
    .where(eq(picture.jobId, jobId))
    .orderBy(asc(picture.takenAt));
  return rows.map(({ takenAt, struckAt, ...rest }) => ({
    ...rest,
    at: takenAt.toISOString(),
    struck: struckAt !== null,
  }));
}

/** The JPEG of a picture of this shop. */
export async function pictureBytes(shopId: string, id: string, size: 'whole' | 'small'): Promise<Buffer> {
  const [found] = await database()
    .select({ jpeg: picture[size] })
    .from(picture)
    .innerJoin(job, eq(job.id, picture.jobId))
    .where(and(eq(picture.id, id), eq(job.shopId, shopId)));
  if (!found) throw new Refused(404, 'There is no such picture.');
  return found.jpeg;
}

/** The pictures that go on a printed report, and of how many; struck ones not among them. */
export async function picturesToPrint(jobId: string): Promise<PrintedPictures> {
  const db = database();
  const standing = and(eq(picture.jobId, jobId), isNull(picture.struckAt));
  const printed = await db
    .select({ caption: picture.caption, jpeg: picture.small })
    .from(picture)
    .where(standing)
    .orderBy(asc(picture.takenAt))
    .limit(mostPrinted);
  return { printed, of: await db.$count(picture, standing) };
}

interface PictureStrike {
  readonly picture: string;
  /** Out; else back in. */
  readonly out: boolean;
}

/** Strikes a picture out, or back in: it stays, and so does who did it last. Asked for twice is once. */
export async function strikePicture(
  jobId: string,
  tag: number,
  technicianId: string,
  { picture: id, out }: PictureStrike,
): Promise<void> {
  await database().transaction(async (db) => {
    const [found] = await db
      .select({ struckAt: picture.struckAt })
      .from(picture)
      .where(and(eq(picture.id, id), eq(picture.jobId, jobId)));
    if (!found) throw new Refused(404, 'There is no such picture of this unit.');
    if ((found.struckAt !== null) === out) return;
    const struckAt = out ? new Date() : null;
    await db.update(picture).set({ struckAt, struckBy: technicianId }).where(eq(picture.id, id));
    await announce(db, tag);
  });
}

/** No sign that passes for another when it is typed over. */
const codeSigns = 'abcdefghjkmnpqrstuvwxyz23456789';
const codeLength = 10;
const codeMinutes = 10;

export interface PictureCode {
  readonly code: string;
  readonly until: string;
}

/** A code with which a phone may send pictures of this unit for ten minutes. */
export async function makePictureCode(jobId: string, technicianId: string): Promise<PictureCode> {
  const code = Array.from({ length: codeLength }, () => codeSigns[randomInt(codeSigns.length)]).join('');
  const expiresAt = addMinutes(new Date(), codeMinutes);
  await database().delete(pictureCode).where(lt(pictureCode.expiresAt, new Date()));
  await database()
    .insert(pictureCode)
    .values({ id: tokenHash(code), jobId, technicianId, expiresAt });
  return { code, until: expiresAt.toISOString() };
}

export interface CodeFor {
  readonly jobId: string;
  readonly tag: number;
  readonly technicianId: string;
  readonly until: string;
}

/** @throws Refused 410 when the code was never given or its time is up */
export async function pictureCodeFor(code: string, db: Queryable = database()): Promise<CodeFor> {
  const [found] = await db
    .select({ jobId: job.id, tag: job.tag, technicianId: pictureCode.technicianId, expiresAt: pictureCode.expiresAt })
    .from(pictureCode)
    .innerJoin(job, eq(job.id, pictureCode.jobId))
    .where(and(eq(pictureCode.id, tokenHash(code)), gt(pictureCode.expiresAt, new Date())));
  if (!found) throw new Refused(410, 'This code is used up: ask for a new one at the bench, under Pictures.');
  const { expiresAt, ...rest } = found;
  return { ...rest, until: expiresAt.toISOString() };
}
