import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { type Motor, motorRun, motorRunUp, type MotorSource } from '../../src/curves/index.ts';
import { familyOf, starterFed, runningFault, starterGeneric } from '../../src/machines/index.ts';

/** Written by hand: a motor as a circuit, its shaft as a capacitor (volts for radians per second, farads for inertia). */
const deck = (
  motor: Motor,
  source: MotorSource,
  henries: number,
  inertia: number,
  pinionNm: number,
  until: number,
) => `run-up
Vbat b 0 ${source.volts}
Rbat b m ${source.ohms}
Rfeed m q ${motor.feedOhms}
${motor.leakOhms === Infinity ? '' : `Rleak q 0 ${motor.leakOhms}`}
Rmot q x ${motor.ohms - motor.feedOhms}
Lmot x y ${henries}
Vamp y z 0
Vbrush z e ${motor.brushVolts}
.param turns=${1 - motor.shortedCoils / motor.coil.coils}
Bflux k 0 V=${
  motor.field === 'magnets'
    ? `${motor.fluxWebers}*turns`
    : `${motor.fluxWebers}*turns*(1+${motor.saturation})*(${motor.fieldTurns}*max(i(Vamp),0)/${motor.referenceAmps})/(1+${motor.saturation}*(${motor.fieldTurns}*max(i(Vamp),0)/${motor.referenceAmps}))`
}
Rk k 0 1
Bemf e 0 V=v(k)*v(w)
Cshaft w 0 ${inertia} IC=0
Btorque 0 w I=v(k)*i(Vamp)
Bshort w 0 I=${motor.shortedCoils}*0.5*(3.14159265358979*v(k)/${motor.coil.coils})^2*${motor.coil.ohms}*v(w)/(${motor.coil.ohms}^2+(${motor.coil.polePairs}*v(w)*${motor.coil.henries})^2)
Bdrag w 0 I=(${motor.drag.newtonMetres}+${pinionNm / (motor.gear.ratio * motor.gear.efficiency)})*tanh(v(w)*5)+${motor.drag.perRadian}*v(w)
.tran ${until / 4000} ${until} 0 ${until / 8000} uic
.options reltol=1e-5
.control
run
wrdata OUT i(Vamp) v(w) v(m)
.endc
.end
`;

/** Times, amperes, radians per second, terminal volts. */
function inSpice(text: string): readonly (readonly number[])[] {
  const folder = mkdtempSync(join(tmpdir(), 'refectum-motor-'));
  try {
    const out = join(folder, 'out');
    writeFileSync(join(folder, 'motor.cir'), text.replace('OUT', out));
    spawnSync('ngspice', ['-b', join(folder, 'motor.cir')]);
    return readFileSync(out, 'utf8')
      .trim()
      .split('\n')
      .map((line) => line.trim().split(/\s+/).map(Number))
      .map(([time, amps, , radians, , volts]) => [time!, amps!, radians!, volts!]);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

describe('starters against ngspice, from a deck written by hand', () => {
  for (const [volts, kilowatts, layout] of [
    [12, 1.4, 'direct'],
    [12, 1.1, 'planetary'],
    [24, 5.5, 'reduction'],
  ] as const) {
    const machine = starterGeneric(volts, kilowatts, layout);
    const all = familyOf(machine).faults(machine);
    const dynamics = { henries: 60e-6, kilogramSquareMetres: 2.5e-4 * kilowatts, bars: 25, rippleShare: 0 };
    for (const [id, severity] of [
      ['', 0],
      ['contacts-burnt', 0.018],
      ['bushes-worn', 3],
      ['field-turns', 0.4],
      ['magnets-weak', 0.2],
      ['armature-turns', 2],
      ['armature-core', 0.3],
    ] as const) {
      const found = all.find((fault) => fault.id === id);
      if (id && !found) continue;
      it(`${volts} V, ${layout}, ${id || 'sound'}: settles within 0.5 % of the equations at rest`, () => {
        const { motor, source } = starterFed(machine, found ? [runningFault(found, severity)] : [], 20);
        for (const newtonMetres of [0, 0.2 * motorRun(motor, source, 'held').newtonMetres]) {
          const { henries, kilogramSquareMetres } = dynamics;
          const rows = inSpice(deck(motor, source, henries, kilogramSquareMetres, newtonMetres, 3));
          const [, amps, radians, terminal] = rows.at(-1)!;
          const run = motorRun(motor, source, { newtonMetres });
          const total = (source.volts - terminal!) / source.ohms;
          expect(total).closeTo(run.amps, 0.005 * run.amps);
          expect(terminal).closeTo(run.volts, 0.002 * run.volts);
          expect((radians! * 60) / (2 * Math.PI * motor.gear.ratio)).closeTo(run.rpm, 0.005 * run.rpm);
          expect(amps).greaterThan(0);
        }
      });
    }
    it(`${volts} V, ${layout}: inrush within 1 %, the time to half speed within 2 %`, () => {
      const { motor, source } = starterFed(machine, [], 20);
      const seconds = 0.6;
      const rows = inSpice(deck(motor, source, dynamics.henries, dynamics.kilogramSquareMetres, 0, seconds));
      const ours = motorRunUp(motor, source, dynamics, 0, seconds, 6000);
      const peak = Math.max(...rows.map(([, amps]) => amps!));
      expect(Math.max(...ours.amps)).closeTo(peak, 0.01 * peak);
      const half = motorRun(motor, source, { newtonMetres: 0 }).rpm / 2;
      const rpmOf = (radians: number) => (radians * 60) / (2 * Math.PI * motor.gear.ratio);
      const when = rows.find(([, , radians]) => rpmOf(radians!) >= half)![0]!;
      const ourWhen = ours.rpm.findIndex((rpm) => rpm >= half) * ours.secondsPerSample;
      expect(ourWhen).closeTo(when, 0.02 * when);
    });
  }
});
