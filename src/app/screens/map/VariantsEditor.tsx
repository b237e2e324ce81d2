import { freeControlPair, fitText } from '../../../core/show';
import { Plus, Trash2 } from 'lucide-react';
import { withVariant, type Variants } from '../../../core/addressing';
import type { Unit } from '../../../core/show';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { EditorBox } from './ControlEditor';
import { EncodingEditor } from './EncodingEditor';
import { useProfile } from './useProfile';

const FIRST: Variants = {
  word: 'scene',
  names: ['1', '2', '3', '4'],
  encoding: { kind: 'index', number: 85, base: 0, step: 1, count: 4 },
};

/** What a unit has inside a preset, in its own word, and how each is called. */
export function VariantsEditor({ unit }: { readonly unit: Unit }) {
  const change = useProfile(unit);
  const { profile } = unit;
  const { variants } = profile;
  const put = (next: Variants | null, label: string): string | null => change({ ...profile, variants: next }, label);
  if (!variants) {
    return (
      <EditorBox aria-label="Variants">
        <p>In the map, presets of {unit.name} have nothing inside them that is called on its own.</p>
        <div>
          <Button onPress={() => put(FIRST, 'add variants')}>Add variants (scenes, snapshots)</Button>
        </div>
      </EditorBox>
    );
  }
  const { word, names, encoding } = variants;
  const rename = (i: number, name: string): string | null =>
    put({ ...variants, names: names.with(i, fitText(name, 'name')) }, `name ${word} ${i + 1}`);
  return (
    <EditorBox aria-label="Variants">
      <DraftField
        label="The unit's own word"
        value={word}
        commit={(text) =>
          text.trim() === '' ? 'a word' : put({ ...variants, word: text.trim().slice(0, 24) }, 'change the word')
        }
      />
      {names.map((name, i) => (
        <DraftField
          key={i}
          label={`${word} ${i + 1}, sent as ${i} counted from 0`}
          value={name}
          commit={(text) => rename(i, text)}
        />
      ))}
      <VariantActs put={put} variants={variants} />
      <EncodingEditor
        encoding={encoding}
        channel={unit.channel}
        pair={freeControlPair(unit, null)}
        options={names}
        onEncoding={(next) => put({ ...variants, encoding: next }, `change how a ${word} is called`)}
      />
      <div>
        <Button onPress={() => void put(null, `remove ${word}s`)}>
          <Trash2 size={15} aria-hidden /> Remove variants
        </Button>
      </div>
      <Soft style={{ fontSize: 13 }}>A {word} that tones use and that is removed here is left out of them.</Soft>
    </EditorBox>
  );
}

interface VariantActsProps {
  readonly put: (next: Variants | null, label: string) => string | null;
  readonly variants: Variants;
}

function VariantActs({ put, variants }: VariantActsProps) {
  const { names, word } = variants;
  const more = withVariant(variants);
  return (
    <div style={{ display: 'flex', gap: 8 }}>
      <Button onPress={() => put(more, `add a ${word}`)} isDisabled={more === null}>
        <Plus size={15} aria-hidden /> Add a {word}
      </Button>
      <SignButton
        aria-label={`Remove the last ${word}`}
        isDisabled={names.length < 2}
        onPress={() => void put({ ...variants, names: names.slice(0, -1) }, `remove a ${word}`)}
      >
        <Trash2 size={16} />
      </SignButton>
    </div>
  );
}
