import { expect } from 'chai';
import { denial } from '../src/lib/access.ts';
import { type Person, passwordSchema, pinSchema, type Role } from '../src/lib/people.ts';

const person = (role: Role): Person => ({ id: 'an id', name: 'Jory Tamm', role });
const may = (path: string, method: string, role?: Role): number =>
  denial(path, method, role && person(role))?.status ?? 200;

describe('access', () => {
  const table: readonly (readonly [string, string, number, number, number, number])[] = [
    // path, method, nobody, viewer, technician, lead
    ['/', 'GET', 401, 200, 200, 200],
    ['/sign-in', 'GET', 200, 200, 200, 200],
    ['/sign-in', 'POST', 200, 200, 200, 200],
    ['/sign-in-as-anybody', 'GET', 401, 200, 200, 200],
    ['/sign-out', 'POST', 401, 200, 200, 200],
    ['/me', 'POST', 401, 200, 200, 200],
    ['/api/health', 'GET', 200, 200, 200, 200],
    ['/api/jobs/1001', 'GET', 401, 200, 200, 200],
    ['/api/jobs/1001', 'PATCH', 401, 403, 200, 200],
    ['/api/jobs/1001/readings', 'POST', 401, 403, 200, 200],
    ['/check-in', 'POST', 401, 403, 200, 200],
    ['/people', 'GET', 401, 403, 403, 200],
    ['/people', 'POST', 401, 403, 403, 200],
    ['/shelf', 'GET', 401, 200, 200, 200],
    ['/shelf', 'POST', 401, 403, 403, 200],
    ['/shelf/import', 'POST', 401, 403, 403, 200],
  ];
  for (const [path, method, ...wanted] of table) {
    it(`${method} ${path}: nobody ${wanted[0]}, viewer ${wanted[1]}, technician ${wanted[2]}, lead ${wanted[3]}`, () => {
      const given = [undefined, 'viewer', 'technician', 'lead'].map((role) => may(path, method, role as Role));
      expect(given).deep.equal(wanted);
    });
  }
  it('says why, and to whom', () => {
    expect(denial('/people', 'GET', person('technician'))!.message).equal(
      'Jory Tamm is no lead: only a lead may do that.',
    );
    expect(denial('/check-in', 'POST', person('viewer'))!.message).match(/may look, not write/);
    // It asks with a body, and writes nothing.
    expect(denial('/api/assess', 'POST', person('viewer'))).equal(undefined);
    expect(denial('/api/assess', 'POST', undefined)!.status).equal(401);
    const instrument = '/api/instruments/51a7d1a5-0000-4000-8000-000000000003';
    expect(denial(`${instrument}/stop`, 'POST', person('viewer')), 'whoever stands by').equal(undefined);
    expect(denial(`${instrument}/stop`, 'POST', undefined)!.status).equal(401);
    expect(denial(`${instrument}/set`, 'POST', person('viewer'))!.status).equal(403);
  });
});

describe('secrets', () => {
  it('takes PINs of 4 to 8 digits, none that is tried first', () => {
    for (const pin of ['4180', '2719', '60528', '93041175']) expect(pinSchema.isValidSync(pin), pin).equal(true);
    for (const pin of ['', '123', '1234', '4321', '0000', '99999', '23456789', '123456789', '12a4', '１２３５'])
      expect(pinSchema.isValidSync(pin), pin).equal(false);
  });
  it('takes passwords of ten characters and more, spaces too', () => {
    expect(passwordSchema.isValidSync('salt on the slipway')).equal(true);
    for (const password of ['', 'too short', 'x'.repeat(201)])
      expect(passwordSchema.isValidSync(password)).equal(false);
  });
});
