import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  LIMITS,
  RANGES,
  figureIn,
  hearing,
  putEar,
  rangeWords,
  removeEar,
  sourcesOf,
  type EarMix,
} from '../../../core/show';
import type { Route } from '../../../core/sound';
import { Button, Field, Input, Label, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { PlainTable } from '../../widgets/plainTable';
import { newId, perform } from '../../state/desk';
import { setEarRoute, useMix } from '../../state/mix';
import { useShow } from '../../state/store';
import { RoutePick, Row, type RouteChoice } from './mixParts';

const NOWHERE: Route = [];

/** What each person hears in their ears, and where it leaves this computer. */
export function EarMixes({ choices }: { readonly choices: readonly RouteChoice[] }) {
  const show = useShow();
  const earRoutes = useMix((m) => m.earRoutes);
  const [name, setName] = useState('');
  const sources = sourcesOf(show);
  const add = (): void => {
    const hears = ['click', 'calls', 'backing'].map((of) => ({ of, gain: 0 }));
    if (perform(putEar(show, { id: newId(), name, hears }), `ear mix for ${name.trim()}`)) setName('');
  };
  return (
    <>
      <Row>
        <h2 style={{ marginRight: 'auto' }}>Ear mixes (dB)</h2>
        <Field value={name} onChange={setName} maxLength={LIMITS.title} style={{ width: 180 }}>
          <Label>For whom</Label>
          <Input
            placeholder={show.players[0]?.name ?? ''}
            onKeyDown={(e) => {
              if (e.key === 'Enter' && !e.nativeEvent.isComposing) add();
            }}
          />
        </Field>
        <Button isDisabled={name.trim() === ''} onPress={add}>
          Add an ear mix
        </Button>
      </Row>
      {show.ears.length === 0 ? (
        <Soft>
          All hear what goes to the outputs above. An ear mix lets one person hear less or more of each, on an output of
          their own.
        </Soft>
      ) : (
        <div style={{ overflowX: 'auto' }}>
          <PlainTable aria-label="Ear mixes">
            <thead>
              <tr>
                <th scope="col">Ears</th>
                <th scope="col" style={{ width: 170 }}>
                  Output
                </th>
                {sources.map((s) => (
                  <th key={s.id} scope="col" style={{ width: 92 }}>
                    {s.name}
                  </th>
                ))}
                <th scope="col" aria-label="Remove" style={{ width: 44 }} />
              </tr>
            </thead>
            <tbody>
              {show.ears.map((ear) => (
                <EarRow key={ear.id} ear={ear} earRoutes={earRoutes} choices={choices} sources={sources} />
              ))}
            </tbody>
          </PlainTable>
        </div>
      )}
    </>
  );
}

interface EarRowProps {
  readonly ear: EarMix;
  readonly earRoutes: Readonly<Record<string, Route>>;
  readonly choices: readonly RouteChoice[];
  readonly sources: ReturnType<typeof sourcesOf>;
}

/** The mix of one pair of ears. */
function EarRow({ ear, earRoutes, choices, sources }: EarRowProps) {
  const show = useShow();
  return (
    <tr>
      <th scope="row">{ear.name}</th>
      <td>
        <RoutePick
          label={`Output of ${ear.name}’s ears`}
          route={earRoutes[ear.id] ?? NOWHERE}
          choices={choices}
          onPick={(route) => setEarRoute(ear.id, route)}
        />
      </td>
      {sources.map((s) => (
        <td key={s.id}>
          <EarLevel ear={ear} source={s} />
        </td>
      ))}
      <td>
        <SignButton
          aria-label={`Remove the ear mix of ${ear.name}`}
          onPress={() => perform(removeEar(show, ear.id), `remove the ear mix of ${ear.name}`)}
        >
          <Trash2 size={15} />
        </SignButton>
      </td>
    </tr>
  );
}

function EarLevel({
  ear,
  source,
}: {
  readonly ear: EarMix;
  readonly source: { readonly id: string; readonly name: string };
}) {
  const show = useShow();
  const gain = ear.hears.find((h) => h.of === source.id)?.gain;
  return (
    <DraftField
      label={`${source.name} for ${ear.name} (empty: not heard)`}
      hideLabel
      numeric
      value={gain === undefined ? '' : String(gain)}
      commit={(text) => {
        const typed = text.trim() === '' ? null : figureIn(RANGES.gain, text);
        if (typed === undefined) return `${rangeWords(RANGES.gain)}, or nothing`;
        perform(putEar(show, hearing(ear, source.id, typed)), `change what ${ear.name} hears`);
        return null;
      }}
    />
  );
}
