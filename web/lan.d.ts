export function lanNames(): string[];
export function lanAddresses(): string[];
export function onLan(): boolean;
