import type { Person } from '$lib/people.ts';

declare global {
  namespace App {
    interface Locals {
      /** Who is signed in at this browser. */
      person: Person | undefined;
      shop: { id: string; name: string; heading: string };
    }
    interface Error {
      message: string;
    }
  }
}

export {};
