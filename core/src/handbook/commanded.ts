/**
 * Set-point of a regulator that a computer commands, V on 12 V sets, by the share of the time that its signal is on.
 * Makes differ; the check asks no more than that the volts follow [our estimate].
 */
export const commandedVolts = (duty: number): number => 12 + 3.5 * duty;

/** Between the two commands of the check: from less than this it doesn't follow, V on 12 V sets [our estimate]. */
export const leastFollowed = 0.6;
