import { Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { CORE_LIMIT, indexShow, setCore, type Show } from '../../../core/show';
import { SignButton, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { desk, font } from '../../theme/tokens';

const Box = styled.section`
  display: grid;
  gap: 6px;
  padding: 0 16px 16px;
  & h3 {
    font-size: 15px;
  }
  & ol {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  & li {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  & kbd {
    width: 22px;
    border: 1.5px solid ${desk.lineStrong};
    border-radius: 3px;
    background: ${desk.field};
    text-align: center;
    font: 700 13px/19px ${font.display};
  }
`;

/** Tones that every song leans on: on the chart their number places them at the caret. */
export function CorePart({ show }: { readonly show: Show }) {
  const { tones } = indexShow(show);
  const rest = show.tones.filter((t) => !show.core.includes(t.id));
  return (
    <Box aria-label="Core tones">
      <h3>Core tones, by number key</h3>
      <ol>
        {show.core.map((id, i) => (
          <li key={id}>
            <kbd>{i + 1}</kbd>
            <span style={{ flex: 1 }}>{tones.get(id)?.name}</span>
            <SignButton
              aria-label={`Take ${tones.get(id)?.name ?? 'it'} out of the core`}
              onPress={() =>
                perform(
                  setCore(
                    show,
                    show.core.filter((x) => x !== id),
                  ),
                  'change the core tones',
                )
              }
            >
              <Trash2 size={14} />
            </SignButton>
          </li>
        ))}
      </ol>
      {show.core.length < CORE_LIMIT && rest.length > 0 ? (
        <Pick
          label="Add to the core"
          value=""
          choices={rest}
          onPick={(id) => perform(setCore(show, [...show.core, id]), 'change the core tones')}
        />
      ) : (
        <Soft>{rest.length === 0 ? 'All tones are in it.' : `It holds ${CORE_LIMIT}.`}</Soft>
      )}
    </Box>
  );
}
