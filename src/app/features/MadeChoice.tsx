import { useState } from 'react';
import type { MadeNames } from '../../core/cells';
import type { Problem } from '../../core/problems';
import { Choices } from '../widgets/Choices';

/** What is done with names that a spreadsheet seems to have changed: nobody has to say before there are any. */
export function useMade(): readonly [MadeNames, (made: MadeNames) => void] {
  return useState<MadeNames>('ask');
}

interface Props {
  readonly made: MadeNames;
  readonly onPick: (made: MadeNames) => void;
  readonly problems: readonly Problem[];
}

/** Asks what is meant where a table has names that look like what a spreadsheet made of others. */
export function MadeChoice({ made, onPick, problems }: Props) {
  if (made === 'ask' && !problems.some((p) => p.code === 'csv.made-of')) return null;
  return (
    <Choices<MadeNames>
      label="Names that a spreadsheet seems to have changed"
      value={made}
      onPick={onPick}
      choices={[
        { id: 'ask', name: 'Ask', about: 'Nothing is imported while there are such names.' },
        { id: 'keep', name: 'As the show has them', about: '“7” is “007” again, “1-Feb” is “1/2”.' },
        { id: 'take', name: 'As they are written', about: '“7” is another name than “007”.' },
      ]}
    />
  );
}
