import { mixed, object, string } from 'yup';

/** What somebody may do: a viewer looks, a technician works, a lead also keeps shelf and people. */
export type Role = 'technician' | 'lead' | 'viewer';
/** A PIN is taken on the shop's own screens, a password everywhere. */
export type Secret = 'pin' | 'password';

export const roles: readonly { readonly id: Role; readonly name: string; readonly may: string }[] = [
  { id: 'technician', name: 'technician', may: 'measures, strikes out, decides' },
  { id: 'lead', name: 'lead', may: 'also keeps shelf and people' },
  { id: 'viewer', name: 'viewer', may: 'looks, writes nothing' },
];

/** Whoever is signed in. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

const easy = (digits: string): boolean => {
  const steps = [...digits].slice(1).map((digit, i) => Number(digit) - Number(digits[i]));
  return steps.every((step) => step === steps[0]) && Math.abs(steps[0] ?? 0) <= 1;
};

const name = () => string().trim().required('Type a name').max(60, 'at most 60 characters');
export const pinSchema = string()
  .required('Type a PIN of 4 to 8 digits')
  .matches(/^\d{4,8}$/, 'A PIN is 4 to 8 digits')
  .test('easy', 'That PIN is the first anybody would try: take other digits', (pin) => !easy(pin));
export const passwordSchema = string()
  .required('Type a password')
  .min(10, 'A password has at least 10 characters')
  .max(200, 'at most 200 characters');
const roleSchema = mixed<Role>()
  .oneOf(
    roles.map(({ id }) => id),
    'must be technician, lead or viewer — got ${value}',
  )
  .required('Choose a role');
const id = () => string().uuid('must be a UUID').required();

export const firstLeadSchema = object({ name: name(), pin: pinSchema, password: passwordSchema });
export const newPersonSchema = object({ name: name(), role: roleSchema, pin: pinSchema });
export const personChangeSchema = object({ id: id(), role: roleSchema, left: string().oneOf(['', 'yes']).default('') });
export const givenPinSchema = object({ id: id(), pin: pinSchema });
export const givenPasswordSchema = object({ id: id(), password: passwordSchema });
export const ownPinSchema = object({ old: string().required('Type the PIN or password you have now'), pin: pinSchema });
export const ownPasswordSchema = object({
  old: string().required('Type the PIN or password you have now'),
  password: passwordSchema,
});
export const screenSchema = object({ name: name() });
export const forgetScreenSchema = object({ screen: string().required('Which screen?').max(60) });
export const signOutSchema = object({ id: id() });
