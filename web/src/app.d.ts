declare global {
  namespace App {
    interface Locals {
      /** Who stands at this screen, picked at its top. */
      technician: { id: string; name: string } | undefined;
      shop: { id: string; name: string; heading: string };
    }
    interface Error {
      message: string;
    }
  }
}

export {};
