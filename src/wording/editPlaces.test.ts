import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { editPlaceWords } from './editPlaces';

const show = demoShow();

describe('where an edit was made', () => {
  it.each([
    [{ list: 'songs', id: 'fog-bell' }, 'the song Fog Bell'],
    [{ list: 'tones', id: 'fog-lead' }, 'the tone Fog Lead'],
    [{ list: 'units', id: 'tarn' }, 'the unit Tarn'],
    [{ list: null, id: null }, ''],
    [{ list: 'songs', id: 'gone' }, ''],
    [{ list: 'audio', id: 'x' }, ''],
  ])('%j', (place, words) => {
    expect(editPlaceWords(place, [undefined, show])).toBe(words);
  });

  it('has the name from the state that has the member still', () => {
    const without = { ...show, tones: [] };
    expect(editPlaceWords({ list: 'tones', id: 'fog-lead' }, [without, show])).toBe('the tone Fog Lead');
  });
});
