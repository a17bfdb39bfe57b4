import { expect } from 'chai';
import { columns, complaintId, complaintNames, lineKeys, readSheet, writeSheet } from '../src/lib/many.ts';

describe('many units at once: the sheet', () => {
  it('reads columns in any order and case, quoted commas, and lines of nothing', () => {
    const { lines, problem } = readSheet(
      'Model,Complaint,CUSTOMER,words\nGull 70,No charge,"Quay, the ferries","Dead, they say"\n\n , ,,\nGull 70,Whine,Pier,\n',
    );
    expect(problem).equal(undefined);
    expect(lines.map(({ customer, model, words, serial }) => [customer, model, words, serial])).deep.equal([
      ['Quay, the ferries', 'Gull 70', 'Dead, they say', ''],
      ['Pier', 'Gull 70', '', ''],
    ]);
  });
  it('reads what a spreadsheet puts on the clipboard, and semicolons', () => {
    for (const sign of ['\t', ';']) {
      const text = ['customer', 'model', 'complaint'].join(sign) + '\n' + ['Pier', 'Gull 70', 'Growl'].join(sign);
      expect(readSheet(text).lines[0], JSON.stringify(sign)).deep.include({ customer: 'Pier', complaint: 'Growl' });
    }
  });
  it('names columns that are none, and those that lack', () => {
    expect(readSheet('customer,model,complaint,colour\na,b,c,d').problem).match(/No column “colour”.*customer, model/);
    expect(readSheet('customer,words\na,b').problem).match(/lacks model, complaint/);
    expect(readSheet('  ')).deep.equal({ lines: [], problem: undefined });
  });
  it('writes what it read', () => {
    const text =
      'customer,model,complaint,words,due,volts\n"Quay, ferries",Gull 70,Whine,"says ""dead""",2026-12-01,24';
    const { lines } = readSheet(text);
    expect(readSheet(writeSheet(lines)).lines).deep.equal(lines);
    expect(writeSheet(lines).split('\n')[0]).equal(columns.join(','));
  });
  it('keys a line by its text wherever it stands, and each of two that are the same', () => {
    const { lines } = readSheet('customer,model,complaint\nPier,Gull,Whine\nQuay,Gull,Whine\nPier,Gull,Whine');
    const [pier, quay, again] = lineKeys(lines);
    expect(new Set([pier, quay, again]).size).equal(3);
    expect(lineKeys([lines[1]!, lines[0]!])).deep.equal([quay, pier]);
    expect(lineKeys([lines[2]!, lines[1]!, lines[0]!])).deep.equal([pier, quay, again]);
  });
  it('knows a complaint by id or name, however it is capitalised', () => {
    expect(complaintId('no charge')).equal('no-charge');
    expect(complaintId('NO-CHARGE')).equal('no-charge');
    expect(complaintId(' Click, no crank ')).equal('click');
    expect(complaintId('sulks')).equal(undefined);
    for (const name of complaintNames) expect(complaintId(name), name).not.equal(undefined);
  });
});
