/** Constants of the semiconductor junction: exact SI values (2019), and SPICE's defaults for silicon. */
export const boltzmannOverCharge = 1.380649e-23 / 1.602176634e-19;
export const zeroCelsius = 273.15;
const bandgapVolts = 1.11;
const saturationExponent = 3;

/** A p-n or metal junction as SPICE states it: I = Is·(exp(V/(n·Vt)) − 1) behind a series resistance. */
export interface JunctionLaw {
  /** Saturation current at 25 °C. */
  readonly saturationAmps: number;
  /** n. */
  readonly ideality: number;
  readonly seriesOhms: number;
}

/** A law worked out at one temperature. */
export interface JunctionAt {
  readonly saturationAmps: number;
  /** n·k·T/q. */
  readonly slopeVolts: number;
  readonly seriesOhms: number;
  /** Above this voltage a Newton step is shortened (SPICE's pnjlim). */
  readonly criticalVolts: number;
  /** d(ln Is)/dT, per kelvin. */
  readonly saturationPerKelvin: number;
  readonly kelvin: number;
}

/** Is(T) after SPICE: Is · exp((T/Tnom − 1)·EG/(n·Vt) + XTI/n · ln(T/Tnom)). */
export function junctionAt(law: JunctionLaw, celsius: number): JunctionAt {
  const kelvin = celsius + zeroCelsius;
  const nominal = 25 + zeroCelsius;
  const slopeVolts = law.ideality * boltzmannOverCharge * kelvin;
  const ratio = kelvin / nominal;
  const exponent = ((ratio - 1) * bandgapVolts) / slopeVolts + (saturationExponent / law.ideality) * Math.log(ratio);
  const saturationAmps = law.saturationAmps * Math.exp(exponent);
  return {
    saturationAmps,
    slopeVolts,
    seriesOhms: law.seriesOhms,
    criticalVolts: slopeVolts * Math.log(slopeVolts / (Math.SQRT2 * saturationAmps)),
    saturationPerKelvin: bandgapVolts / (slopeVolts * kelvin) + saturationExponent / (law.ideality * kelvin),
    kelvin,
  };
}

/** Is that gives `volts` at `amps` and 25 °C, series resistance left out. */
export function saturationFor(volts: number, amps: number, ideality: number): number {
  return amps / Math.expm1(volts / (ideality * boltzmannOverCharge * (25 + zeroCelsius)));
}

/** SPICE's smallest conductance across a junction, in siemens. */
export const leastConductance = 1e-12;

/**
 * Current (A) and conductance (S) of the bare junction at `volts`; the reverse branch is SPICE3's. `saturation`: how
 * many times its law's saturation current this one has.
 */
export function junctionCurrent(at: JunctionAt, saturation: number, volts: number, out: Float64Array): void {
  const { slopeVolts } = at;
  const saturationAmps = saturation * at.saturationAmps;
  if (volts >= -3 * slopeVolts) {
    const grown = saturationAmps * Math.exp(volts / slopeVolts);
    out[0] = grown - saturationAmps + leastConductance * volts;
    out[1] = grown / slopeVolts + leastConductance;
  } else {
    const share = (3 * slopeVolts) / (volts * Math.E);
    const cube = share * share * share;
    out[0] = -saturationAmps * (1 + cube) + leastConductance * volts;
    out[1] = (saturationAmps * 3 * cube) / volts + leastConductance;
  }
}

/** dI/dT at fixed junction voltage, A/K. */
export function junctionPerKelvin(at: JunctionAt, volts: number): number {
  const grown = volts >= -3 * at.slopeVolts ? at.saturationAmps * Math.exp(volts / at.slopeVolts) : 0;
  return (grown - at.saturationAmps) * at.saturationPerKelvin - (grown * volts) / (at.slopeVolts * at.kelvin);
}

/** The next junction voltage of a Newton step, shortened where the exponential would run away (pnjlim). */
export function limitStep(at: JunctionAt, next: number, last: number): number {
  const { slopeVolts, criticalVolts } = at;
  if (next <= criticalVolts || Math.abs(next - last) <= 2 * slopeVolts) return next;
  if (last <= 0) return slopeVolts * Math.log(next / slopeVolts);
  const argument = 1 + (next - last) / slopeVolts;
  return argument > 0 ? last + slopeVolts * Math.log(argument) : criticalVolts;
}
