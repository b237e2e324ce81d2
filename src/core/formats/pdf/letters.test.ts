import { PDFDocument } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { installed } from '../../testing/fonts';
import { SURE_SIGNS, fontFilesFor } from './faces';
import { PdfFonts, Typeface } from './fonts';
import { visual } from './visual';

const facesOf = (text: string): string[] => [...new Set(fontFilesFor([text]).map((f) => `${f.face} ${f.subset}`))];

/** A text as its runs are drawn from left to right. */
async function drawn(text: string): Promise<string> {
  const files = installed(fontFilesFor([text]));
  const fonts = await PdfFonts.for(await PDFDocument.create(), files, [text]);
  return fonts
    .runs(text, 'regular')
    .map((r) => (r.placed ? Array.from(r.text).toReversed().join('') : r.text))
    .join('');
}

describe('fonts of a text', () => {
  it('are those of its letters and no others', () => {
    expect(facesOf('Fog Bell')).toEqual(['ibm-plex-sans latin']);
    expect(facesOf('Łódź')).toEqual(['ibm-plex-sans latin', 'ibm-plex-sans latin-ext']);
    expect(facesOf('Đêm hải')).toContain('ibm-plex-sans vietnamese');
    expect(facesOf('أغنية')).toContain('ibm-plex-sans-arabic arabic');
    expect(facesOf('F♯')).toContain('noto-sans-symbols symbols');
    expect(facesOf(`Fog’s “Bell” – 1…${SURE_SIGNS}`)).toEqual(['ibm-plex-sans latin']);
  });

  it('of common signs are in the file of the common letters', () => {
    const files = installed(fontFilesFor([SURE_SIGNS]));
    expect(files.map((f) => f.weight)).toEqual(['regular', 'bold']);
    const typeface = new Typeface(files);
    for (const weight of ['regular', 'bold'] as const) {
      expect(Array.from(SURE_SIGNS).filter((sign) => typeface.of(sign, weight)?.file.weight !== weight)).toEqual([]);
    }
  });

  it('draw signs of Chinese origin as the language of the text does', () => {
    const first = (text: string): string => {
      const typeface = new Typeface(installed(fontFilesFor([text])));
      return typeface.of('夜', 'regular')!.file.face;
    };
    expect(first('夜の灯台')).toBe('ibm-plex-sans-jp');
    expect(first('夜晚')).toBe('noto-sans-sc');
    expect(facesOf('夜の灯台').some((f) => f.startsWith('noto-sans-sc'))).toBe(false);
  });

  it('have all of what people write in eight scripts, in both weights', () => {
    const texts = [
      '灯台の夜 ７拍子 ライト',
      '等待退潮的歌：帧、烁',
      '등대지기의 노래',
      'שִׁיר הַמִּגְדַּלּוֹר (סוף)',
      'أُغْنِيَة المنارة ١٢ ، ۱۲',
      'प्रकाश क्षितिज लालटेन',
      'Ночь над маяком, Київ',
      'Ξένιος Φάρος Ἀθῆναι',
      'Đêm hải đăng Łódź Țară ẞ',
      'F♯ B♭ C♮ ∞ → ← ↑ ↓ ♩ ♪ ☐ ☑ ✓ ½ “ok” – …',
    ];
    const typeface = new Typeface(installed(fontFilesFor(texts)));
    for (const text of texts) expect([text, typeface.missing(text)]).toEqual([text, []]);
    expect(typeface.missing('Fog 🎸 Bell \u{10A60}')).toEqual(['🎸', '\u{10A60}']);
  });
});

describe('the order of a line', () => {
  it('is as it is read from left to right, for most', () => {
    expect(visual('Fog Bell 12')).toEqual([{ text: 'Fog Bell 12', rightToLeft: false }]);
  });

  it('is turned about from the first letter that is read from right to left', () => {
    const stretches = visual('שיר 12 סוף');
    expect(stretches.map((s) => s.text)).toEqual([' סוף', '12', 'שיר ']);
    expect(stretches.map((s) => s.rightToLeft)).toEqual([true, false, true]);
    expect(visual('Bell שיר 3').map((s) => s.text)).toEqual(['Bell ', 'שיר ', '3'].toSpliced(1, 2, '3', 'שיר '));
  });

  it('is drawn so, brackets turned, figures from left to right', async () => {
    expect(await drawn('שיר (סוף)')).toBe('(ףוס) ריש');
    expect(await drawn('Bell')).toBe('Bell');
    expect(await drawn('أغنية 12')).toBe('12 ةينغأ');
    expect(await drawn('۱۲ أ')).toBe('أ ۱۲');
  });

  it('has letters of Arabic joined, and measures what it draws', async () => {
    const text = 'منارة';
    const files = installed(fontFilesFor([text]));
    const fonts = await PdfFonts.for(await PDFDocument.create(), files, [text]);
    const [run] = fonts.runs(text, 'regular');
    const apart = Array.from(text).reduce((sum, sign) => sum + fonts.width(sign, 'regular', 1), 0);
    expect(run!.placed).toHaveLength(5);
    expect(fonts.width(text, 'regular', 1)).toBeCloseTo(
      run!.placed!.reduce((sum, p) => sum + p.advance, 0),
      9,
    );
    expect(fonts.width(text, 'regular', 1)).toBeLessThan(apart);
  });
});
