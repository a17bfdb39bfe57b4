import { expect } from 'chai';
import { connect } from 'node:net';
import {
  blockOf,
  booleanOf,
  headerPattern,
  nr3,
  numberOf,
  Port,
  type ScpiError,
  ScpiInstrument,
  stringOf,
  unitsOf,
} from '../src/scpi/index.ts';

/** SCPI-1999 and IEEE 488.2-1992, cited by section; their wording is from memory. */
const ohms = { unit: 'OHM', least: 0, most: 1e9, usual: 1000 };
const hertz = { unit: 'HZ', least: 0, most: 1e12, usual: 1 };
const volts = { unit: 'V', least: -1000, most: 1000, usual: 0 };
const codeOf = (act: () => unknown): number | undefined => {
  try {
    act();
  } catch (cause) {
    return (cause as ScpiError).code;
  }
  return undefined;
};

describe('SCPI messages', () => {
  it('headers: short or long form and nothing between, any case, brackets left out or not (SCPI-1999 vol. 1, 6.2.1)', () => {
    const range = headerPattern('[SENSe:]RESistance:RANGe[:UPPer]');
    for (const fits of ['RES:RANG', 'sens:res:rang', 'SENSE:RESISTANCE:RANGE:UPPER', 'Resistance:Rang:Upp'])
      expect(range.test(fits), fits).equal(true);
    for (const not of ['RESI:RANG', 'SENS:RANG', 'RES:RANGES', 'RES', 'RES:RANG?', 'RES:RANG:LOW'])
      expect(range.test(not), not).equal(false);
    expect(headerPattern('*IDN?').test('*idn?')).equal(true);
  });
  it('units, parameters and text in quotation marks that holds separators (IEEE 488.2, 7.4 and 7.7.5)', () => {
    expect(unitsOf(' FUNC "VOLT:DC;1,2" ; RANG 10 , 0.1;;*OPC? ')).deep.equal([
      { header: 'FUNC', parameters: ['"VOLT:DC;1,2"'] },
      { header: 'RANG', parameters: ['10', '0.1'] },
      { header: '*OPC?', parameters: [] },
    ]);
    expect(unitsOf('TRAC (@1,2),3')).deep.equal([{ header: 'TRAC', parameters: ['(@1,2)', '3'] }]);
    expect(stringOf(`'it''s'`)).equal("it's");
    expect(stringOf('"open')).equal(undefined);
    expect(stringOf('VOLT')).equal(undefined);
  });
  it('numbers with suffixes: M is milli, but mega before OHM and HZ (IEEE 488.2, table 7-2)', () => {
    expect(numberOf('4.7 KOHM', ohms)).equal(4700);
    expect(numberOf('3MOHM', ohms)).equal(3e6);
    expect(numberOf('2 MAOHM', ohms)).equal(2e6);
    expect(numberOf('5 MHZ', hertz)).equal(5e6);
    expect(numberOf('5 mv', volts)).equal(0.005);
    expect(numberOf('-1.5e+2', volts)).equal(-150);
    expect(numberOf('.5', volts)).equal(0.5);
    expect([numberOf('MIN', volts), numberOf('maximum', volts), numberOf('DEF', volts)]).deep.equal([-1000, 1000, 0]);
    expect(codeOf(() => numberOf('5 OHM', volts))).equal(-131);
    expect(codeOf(() => numberOf('five', volts))).equal(-104);
    expect(codeOf(() => numberOf('2000', volts))).equal(-222);
  });
  it('booleans, readings as NR3, and a block that says its own length (IEEE 488.2, 8.7.4 and 8.7.9)', () => {
    expect(['ON', 'off', '1', '0', '0.4', '2'].map(booleanOf)).deep.equal([true, false, true, false, false, true]);
    expect(codeOf(() => booleanOf('MAYBE'))).equal(-104);
    expect(nr3(0.523)).equal('+5.23000000E-01');
    expect(nr3(-9.9e37)).equal('-9.90000000E+37');
    expect(nr3(0)).equal('+0.00000000E+00');
    const block = blockOf([1, -2.5, 1e6]);
    expect(block.toString('latin1', 0, 4)).equal('#212');
    expect([4, 8, 12].map((at) => block.readFloatBE(at))).deep.equal([1, -2.5, 1e6]);
  });
});

describe('a SCPI instrument', () => {
  let frequency = { start: 0, stop: 0 };
  const make = (): ScpiInstrument =>
    new ScpiInstrument('Maker,Model,0,1', [
      { header: '[SOURce:]FREQuency:STARt', takes: [1, 1], run: ([f]) => void (frequency.start = numberOf(f!, hertz)) },
      { header: '[SOURce:]FREQuency:STOP', takes: [1, 1], run: ([f]) => void (frequency.stop = numberOf(f!, hertz)) },
      { header: '[SOURce:]FREQuency:STOP?', run: () => nr3(frequency.stop) },
      {
        header: 'BURN',
        run: () => {
          throw new Error('smoke');
        },
      },
    ]);
  const asked = async (instrument: ScpiInstrument, message: string) => (await instrument.execute(message))?.toString();
  beforeEach(() => (frequency = { start: 0, stop: 0 }));

  it('the second header of a message begins where the first one stood; a colon begins anew (SCPI-1999 vol. 1, 6.2.4)', async () => {
    const instrument = make();
    await instrument.execute('FREQ:STAR 3 MHZ;STOP 5 MHZ');
    expect(frequency).deep.equal({ start: 3e6, stop: 5e6 });
    await instrument.execute(':FREQ:STAR 1;*OPC;STOP 2');
    expect(frequency).deep.equal({ start: 1, stop: 2 });
    await instrument.execute('FREQ:STAR 7;:FREQ:STOP 8');
    expect(frequency).deep.equal({ start: 7, stop: 8 });
    await instrument.execute('FREQ:STAR 9;FREQ:STOP 10');
    expect(frequency).deep.equal({ start: 9, stop: 8 });
    expect(await asked(instrument, 'SYST:ERR?')).match(/^-113,"Undefined header;FREQ:FREQ:STOP"$/);
  });
  it('several answers of one message have semicolons between; what asks nothing answers nothing', async () => {
    const instrument = make();
    expect(await asked(instrument, 'FREQ:STOP 5;STOP?;:SYST:VERS?;*IDN?')).equal(
      '+5.00000000E+00;1999.0;Maker,Model,0,1',
    );
    expect(await asked(instrument, 'FREQ:STOP 6')).equal(undefined);
    expect(await asked(instrument, '')).equal(undefined);
  });
  it('errors wait in their order, 0 when none is left; *CLS clears them (SCPI-1999 vol. 1, 4.1.4 and vol. 2, 21.8)', async () => {
    const instrument = make();
    for (const wrong of ['FREQ:STAR', 'FREQ:STAR 1,2', 'FREQ:STAR 1 OHM', 'BURN']) await instrument.execute(wrong);
    const errors = [];
    for (let n = 0; n < 5; n++) errors.push(await asked(instrument, 'SYST:ERR?'));
    expect(errors.map((text) => Number(text!.split(',')[0]))).deep.equal([-109, -108, -131, -240, 0]);
    await instrument.execute('NONSENSE;*CLS');
    expect(await asked(instrument, 'SYST:ERR:COUN?')).equal('1');
    await instrument.execute('*CLS');
    expect(await asked(instrument, 'SYST:ERR?')).equal('0,"No error"');
  });
  it('a full queue says so in its last place (SCPI-1999 vol. 2, 21.8.1)', async () => {
    const instrument = make();
    for (let n = 0; n < 40; n++) await instrument.execute('NONSENSE');
    const codes: number[] = [];
    for (let code = -1; code !== 0; codes.push(code))
      code = Number((await asked(instrument, 'SYST:ERR?'))!.split(',')[0]);
    expect(codes.at(-2)).equal(-350);
    expect(codes.length).equal(17);
  });
  it('status: power on, command and execution errors, masks, summary bits, read once (IEEE 488.2, 11.5)', async () => {
    const instrument = make();
    expect(await asked(instrument, '*ESR?')).equal('128');
    expect(await asked(instrument, '*ESR?')).equal('0');
    await instrument.execute('NONSENSE');
    await instrument.execute('FREQ:STAR 1e15');
    await instrument.execute('*OPC');
    expect(await asked(instrument, '*ESE 48;*SRE 32;*STB?')).equal(String(4 + 32 + 64));
    expect(await asked(instrument, '*ESR?;*STB?')).equal(`${32 + 16 + 1};4`);
    expect(await asked(instrument, '*ESE?;*SRE?;*OPC?;*TST?')).equal('48;32;1;0');
    await instrument.execute('*ESE 256');
    await instrument.execute('SYST:ERR?;:SYST:ERR?');
    expect(await asked(instrument, 'SYST:ERR?')).match(/^-222/);
  });
  it('over a socket: pieces of a line, lines that come together, a line without end, two at once', async () => {
    const port = new Port(make(), 0);
    const number = await port.open();
    const [one, two] = [1, 2].map(() => connect(number, '127.0.0.1'));
    try {
      const answerTo = (socket: typeof one, pieces: string[]): Promise<string> =>
        new Promise((done) => {
          socket!.once('data', (data) => done(String(data)));
          pieces.forEach((piece, n) => setTimeout(() => socket!.write(piece), 15 * n));
        });
      expect(await answerTo(one, ['*ID', 'N', '?\r', '\n'])).equal('Maker,Model,0,1\n');
      const [first, second] = await Promise.all([
        answerTo(one, ['FREQ:STOP 3\nFREQ:STOP?\n']),
        answerTo(two, ['*OPC?\n']),
      ]);
      expect(first).equal('+3.00000000E+00\n');
      expect(second).equal('1\n');
      two!.write('X'.repeat(70_000));
      await new Promise((done) => setTimeout(done, 60));
      expect(await answerTo(one, ['SYST:ERR?\n'])).equal('-363,"Input buffer overrun"\n');
    } finally {
      await port.close();
    }
  });
});
