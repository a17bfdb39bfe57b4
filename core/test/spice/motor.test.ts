import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { type Motor, motorRun, motorRunUp, type MotorSource, swellShare } from '../../src/curves/index.ts';
import { familyOf, starterFed, runningFault, starterGeneric } from '../../src/machines/index.ts';

/** Written by hand: a motor as a circuit, its shaft as a capacitor (volts for radians per second, farads for inertia). */
const deck = (
  motor: Motor,
  source: MotorSource,
  henries: number,
  inertia: number,
  pinionNm: number,
  until: number,
  from: { readonly amps: number; readonly radians: number } = { amps: 0, radians: 0 },
) => `run-up
Vbat b 0 ${source.volts}
Rbat b m ${source.ohms}
Rfeed m q ${motor.feedOhms}
${motor.leakOhms === Infinity ? '' : `Rleak q 0 ${motor.leakOhms}`}
Rmot q p ${motor.ohms - motor.feedOhms}
Bturn p x V=${motor.turn.ohms}*i(Vamp)*sin(v(a))
Lmot x y ${henries} IC=${from.amps}
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
Cshaft w 0 ${inertia} IC=${from.radians}
Cangle a 0 1 IC=0
Bangle 0 a I=v(w)
Bsway w 0 I=${motor.turn.newtonMetres}*sin(v(a))*tanh(v(w)*5)
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
        const { motor: uneven, source } = starterFed(machine, found ? [runningFault(found, severity)] : [], 20);
        // What sways with each turn never settles.
        const motor = { ...uneven, turn: { ...uneven.turn, ohms: 0, newtonMetres: 0 } };
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
    for (const [id, severity] of [
      ['commutator-dirty', 0.012],
      ['shaft-rubs', 4],
    ] as const)
      it(`${volts} V, ${layout}, ${id}: the current swells once a turn within 3 % of the small signals`, () => {
        const { motor, source } = starterFed(
          machine,
          [
            runningFault(
              all.find((f) => f.id === id)!,
              severity,
            ),
          ],
          20,
        );
        const { amps, rpm } = motorRun(motor, source, { newtonMetres: 0 });
        const radians = (rpm * motor.gear.ratio * 2 * Math.PI) / 60;
        const turn = (2 * Math.PI) / radians;
        const { henries, kilogramSquareMetres } = dynamics;
        const rows = inSpice(deck(motor, source, henries, kilogramSquareMetres, 0, 20 * turn, { amps, radians }));
        const last = rows.filter(([time]) => time! > 18 * turn).map(([, at]) => at!);
        const [most, least] = [Math.max(...last), Math.min(...last)];
        const share = swellShare(motor, source, dynamics);
        expect((most - least) / (most + least)).closeTo(share, 0.03 * share);
        expect(share).greaterThan(1.4 * swellShare(starterFed(machine, [], 20).motor, source, dynamics));
      });
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
