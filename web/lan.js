import { hostname, networkInterfaces } from 'node:os';

/** Names and addresses of this machine that others on its network may ask for. */
export const lanNames = () => [...lanAddresses(), hostname(), `${hostname()}.local`];

/** Its IPv4 addresses on the networks it is in. */
export const lanAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((one) => one && one.family === 'IPv4' && !one.internal)
    .map((one) => one.address);

/** Whether it was started with `--lan`. */
export const onLan = () => process.env.REFECTUM_LAN === '1';
