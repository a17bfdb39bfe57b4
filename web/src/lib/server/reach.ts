import { lanAddresses, onLan } from '../../../lan.js';

/** Where a phone or another screen finds this machine: on the network if it serves there, else only here. */
export function reachableOrigin(url: URL): string {
  const [address] = onLan() ? lanAddresses() : [];
  return address ? `http://${address}:${url.port || '80'}` : url.origin;
}

/** Whether another device reaches it at all. */
export const isReachable = (): boolean => onLan() && lanAddresses().length > 0;
