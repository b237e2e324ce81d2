import { BANK_LSB, BANK_MSB } from '../midi';
import { encodingClaims, type Encoding, type Profile } from '../addressing';
import { finding, type Check } from './finding';

interface Function {
  readonly id: string | undefined;
  readonly name: string;
  readonly claims: ReturnType<typeof encodingClaims>;
}

/** Everything on a unit that listens to a number, in the order in which one would mend it: the later gives way. */
function functionsOf({ plan, variants, controls }: Profile): Function[] {
  const of = (id: string | undefined, name: string, encoding: Encoding): Function => ({
    id,
    name,
    claims: encodingClaims(encoding),
  });
  const { send } = plan.bank;
  const banks = send === 'none' ? [] : send === 'msb' ? [BANK_MSB] : send === 'lsb' ? [BANK_LSB] : [BANK_MSB, BANK_LSB];
  // Slots take programs too, but those are told apart by the plan's own table.
  const programs = plan.table ? plan.table.map((r) => r.program) : [];
  return [
    {
      id: undefined,
      name: 'preset',
      claims: [
        ...banks.map((number) => ({ on: 'control' as const, number })),
        ...programs.map((number) => ({ on: 'program' as const, number })),
      ],
    },
    ...(variants ? [of(undefined, variants.word, variants.encoding)] : []),
    ...controls.map((c) => of(c.id, c.name, c.encoding)),
  ];
}

/** Two functions of a unit on one number: whatever is sent moves both. */
export const twoOnOne: Check = (show) =>
  show.units.flatMap((unit) => {
    const owner = new Map<string, string>();
    return functionsOf(unit.profile).flatMap(({ id, name, claims }) => {
      const clash = claims.find((c) => owner.has(`${c.on} ${c.number}`));
      const first = clash && owner.get(`${clash.on} ${clash.number}`)!;
      for (const c of claims) if (!owner.has(`${c.on} ${c.number}`)) owner.set(`${c.on} ${c.number}`, name);
      if (!clash || first === undefined || (first === name && id === undefined)) return [];
      const data = { unit: unit.name, first, second: name, on: clash.on, number: clash.number };
      const place = { in: 'unit', unitId: unit.id, ...(id === undefined ? {} : { controlId: id }) } as const;
      return [finding('map.two-on-one', 'error', place, data)];
    });
  });
