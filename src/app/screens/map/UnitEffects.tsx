import { Plus, Trash2 } from 'lucide-react';
import { hasTwoStates, keepsOf, type Effect, type Profile } from '../../../core/addressing';
import { fitText } from '../../../core/show';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId } from '../../state/desk';
import { useProfile } from './useProfile';
import { Part, Row, type Props } from './unitParts';
import { NONE } from './UnitTiming';

export function Effects({ unit }: Props) {
  const change = useProfile(unit);
  const { profile } = unit;
  const switches = profile.controls.filter((c) => hasTwoStates(c.encoding) && keepsOf(c.encoding) === 'value');
  const put = (effects: readonly Effect[], label: string): string | null => change({ ...profile, effects }, label);
  const of = (i: number, part: Partial<Effect>): void => {
    put(profile.effects.with(i, { ...profile.effects[i]!, ...part }), 'change an effect');
  };
  const choices = switches.map(({ id, name }) => ({ id, name }));
  return (
    <Part aria-label="Effects">
      <h2>Trails: cut or ringing out</h2>
      {profile.effects.map((effect, i) => (
        <EffectRow key={effect.id} effect={effect} put={put} profile={profile} index={i} choices={choices} of={of} />
      ))}
      {profile.effects.length === 0 && <Soft>None of its effects rings on, as far as the map knows.</Soft>}
      <div>
        <Button
          isDisabled={switches.length === 0}
          onPress={() => {
            const [first] = switches;
            if (first)
              put([...profile.effects, { id: newId(), name: first.name, cut: first.id, ring: null }], 'add an effect');
          }}
        >
          <Plus size={15} aria-hidden /> Add an effect
        </Button>
      </div>
      {switches.length === 0 && <Soft>It needs a control that switches on and off.</Soft>}
    </Part>
  );
}

interface EffectRowProps {
  readonly effect: Effect;
  readonly put: (effects: readonly Effect[], label: string) => string | null;
  readonly profile: Profile;
  readonly index: number;
  readonly choices: { id: string; name: string }[];
  readonly of: (i: number, part: Partial<Effect>) => void;
}

/** An effect: its switch, and whether its tail rings out. */
function EffectRow({ effect, put, profile, index, choices, of }: EffectRowProps) {
  return (
    <Row>
      <DraftField
        label="Effect"
        value={effect.name}
        style={{ width: 74 }}
        commit={(text) =>
          text.trim() === ''
            ? 'a name'
            : put(profile.effects.with(index, { ...effect, name: fitText(text, 'name') }), 'rename an effect')
        }
      />
      <Pick
        label="Switch that cuts it"
        width="100px"
        value={effect.cut}
        choices={choices}
        onPick={(cut) => of(index, { cut })}
      />
      <Pick
        label="Switch that lets it ring"
        width="92px"
        value={effect.ring ?? NONE}
        choices={[{ id: NONE, name: 'no such switch' }, ...choices]}
        onPick={(id) => of(index, { ring: id === NONE ? null : id })}
      />
      <SignButton
        aria-label={`Remove the effect ${effect.name}`}
        onPress={() => put(profile.effects.toSpliced(index, 1), 'remove an effect')}
      >
        <Trash2 size={16} />
      </SignButton>
    </Row>
  );
}
