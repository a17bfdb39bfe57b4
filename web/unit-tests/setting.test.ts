import { clawPoleGeneric } from '@refectum/core/machines';
import { expect } from 'chai';
import { hasRested } from '../src/lib/job.ts';
import { benchChangeSchema, soundSetting } from '../src/lib/schemas.ts';
import { type Setting, settingAfter, type SettingChange } from '../src/lib/setting.ts';

const machine = clawPoleGeneric(24, 80);
const before: Setting = {
  assembly: 'closed',
  meter: 'workshop',
  celsius: 20,
  prices: { labourPerHour: 40, exchange: 200, items: { rectifier: { price: 30, minutes: 20 } } },
  vehicle: null,
};
const after = (...changes: readonly SettingChange[]): Setting =>
  changes.reduce((setting, change) => settingAfter(setting, change, machine), before);

describe('a change of what describes a unit', () => {
  it('leaves alone what it doesn’t name, whoever changed that', () => {
    const both = after({ vehicle: { battery: 'mat' } }, { vehicle: { engineLitres: 7 } });
    expect(both.vehicle).deep.include({ battery: 'mat', engineLitres: 7, ratedVolts: 24 });
    expect(after({ vehicle: { engineLitres: 7 } }, { vehicle: { battery: 'mat' } })).deep.equal(both);
    const priced = after({ prices: { exchange: 210 } }, { prices: { items: { rectifier: { minutes: 25 } } } }).prices;
    expect(priced).deep.equal({ labourPerHour: 40, exchange: 210, items: { rectifier: { price: 30, minutes: 25 } } });
  });
  it('takes away what is null, and changes nothing of what it began with', () => {
    const less = after({ prices: { exchange: null, items: { rectifier: { price: null } } } }).prices;
    expect(less).deep.equal({ labourPerHour: 40, items: { rectifier: { minutes: 20 } } });
    expect(before.prices.items).deep.equal({ rectifier: { price: 30, minutes: 20 } });
    expect(after({ vehicle: { engineLitres: 7 } }, { vehicle: { engineLitres: null } }).vehicle).not.have.property(
      'engineLitres',
    );
  });
  it('describes no vehicle until somebody does', () => {
    expect(after({ celsius: 60, assembly: 'opened' })).deep.equal({ ...before, celsius: 60, assembly: 'opened' });
  });
  it('is read by its schema as a patch, and checked once it is whole', () => {
    const technician = crypto.randomUUID();
    const read = (change: object) =>
      benchChangeSchema.noUnknown().validateSync({ ...change, technician }, { strict: true });
    expect(read({ prices: { exchange: null } }).prices).deep.equal({ exchange: null });
    for (const wrong of [{ vehicle: null }, { vehicle: 'bus' }, { prices: 3 }, { assembly: null }])
      expect(() => read(wrong), JSON.stringify(wrong)).throw(/must be a|cannot be null/);
    const whole = (change: SettingChange) => soundSetting(after(change));
    expect(() => whole({ vehicle: { crankingAmps: 9 } })).throw(/50/);
    expect(() => whole({ vehicle: { crankingAmps: null } })).throw(/required|missing/i);
    expect(() => whole({ prices: { exchange: -1 } })).throw(/below 0/);
    expect(whole({ prices: { items: null } }).prices).deep.equal({ labourPerHour: 40, exchange: 200, items: {} });
  });
});

describe('whether a starter has rested since its last reading', () => {
  const ago = (...minutes: number[]) =>
    hasRested(minutes.map((one) => ({ at: new Date(Date.now() - 60_000 * one).toISOString() })));
  it('after two minutes (common practice, no source), whatever came before', () => {
    expect(ago(2.1)).equal(true);
    expect(ago(1.9)).equal(false);
    expect(ago(600, 1)).equal(false);
    expect(ago(600, 3)).equal(true);
  });
  it('not where nothing was read', () => {
    expect(ago()).equal(false);
  });
});
