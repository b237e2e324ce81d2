import type { Show } from '../show';

/** Titles as people write them in eight scripts. */
export const SCRIPT_TITLES: readonly string[] = [
  '灯台の夜 ライト',
  '等待退潮的歌',
  '등대지기의 노래',
  'שִׁיר הַמִּגְדַּלּוֹר',
  'أُغْنِيَة المنارة',
  'प्रकाश लालटेन',
  'Ночь над маяком',
  'Đêm hải đăng ♯',
];

/** A show whose songs, tones, units, presets and sections are called in eight scripts, each in turn. */
export function inScripts(show: Show): Show {
  const titled = (name: string, i: number): string =>
    `${SCRIPT_TITLES[i % SCRIPT_TITLES.length]!} ${name}`.slice(0, 100);
  const named = <T extends { readonly name: string }>(list: readonly T[]): readonly T[] =>
    list.map((item, i) => ({ ...item, name: titled(item.name, i) }));
  return {
    ...show,
    tones: named(show.tones),
    moves: named(show.moves),
    units: named(show.units).map((u) => ({
      ...u,
      slots: named(u.slots),
      profile: { ...u.profile, controls: named(u.profile.controls) },
    })),
    songs: show.songs.map((s, i) => ({
      ...s,
      title: titled(s.title, i),
      sections: s.sections.map((part, k) => ({ ...part, name: titled(part.name, i + k) })),
    })),
  };
}
