import type { StandRules } from '../family.ts';

/** What makes feeding it dangerous [common practice, no source]. */
export const starterBenchRules: StandRules = {
  first: ['free-turning', 'main-to-case', 'main-to-motor', 'case-by-eye'],
  dangers: [
    {
      species: ['main-case'],
      name: 'A path from main terminal to case',
      why: 'the battery feeds it as it is clipped on',
    },
    {
      species: ['contacts-welded'],
      name: 'Welded contacts',
      why: 'it starts the moment the battery is clipped on, and nothing stops it but the clip',
    },
    { species: ['shaft-rubs'], name: 'A rubbing or seized armature', why: 'held fast it draws all the battery has' },
    { species: ['case-cracked'], name: 'A cracked nose', why: 'it kicks: the nose may let go' },
  ],
};
