import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
const font = (family: string, file: string) => require.resolve(`@expo-google-fonts/${family}/${file}`);

/** Whole fonts: those of the web lack letters that names have. The last ones are for scripts that the others do not know. */
export const FONTS = {
  sans: font('hanken-grotesk', '400Regular/HankenGrotesk_400Regular.ttf'),
  bold: font('hanken-grotesk', '600SemiBold/HankenGrotesk_600SemiBold.ttf'),
  mono: font('spline-sans-mono', '400Regular/SplineSansMono_400Regular.ttf'),
  slab: font('zilla-slab', '600SemiBold/ZillaSlab_600SemiBold.ttf'),
  wide: font('noto-sans', '400Regular/NotoSans_400Regular.ttf'),
  wideBold: font('noto-sans', '600SemiBold/NotoSans_600SemiBold.ttf'),
  hebrew: font('noto-sans-hebrew', '400Regular/NotoSansHebrew_400Regular.ttf'),
  hebrewBold: font('noto-sans-hebrew', '600SemiBold/NotoSansHebrew_600SemiBold.ttf'),
  arabic: font('noto-sans-arabic', '400Regular/NotoSansArabic_400Regular.ttf'),
  arabicBold: font('noto-sans-arabic', '600SemiBold/NotoSansArabic_600SemiBold.ttf'),
} as const;
export type FontName = keyof typeof FONTS;
/** What text is set in where its script does not ask for another. */
export type Face = 'sans' | 'bold' | 'mono' | 'slab';

const SCRIPTS = [
  [/\p{Script=Hebrew}/u, 'hebrew'],
  [/\p{Script=Arabic}/u, 'arabic'],
  [/\p{Script=Greek}|\p{Script=Cyrillic}/u, 'wide'],
] as const;

/** The font that has the letters of a text: its own face, or that of the script it is in. */
export function fontFor(face: Face, text: string): FontName {
  const found = SCRIPTS.find(([script]) => script.test(text))?.[1];
  if (!found) return face;
  return face === 'bold' || face === 'slab' ? `${found}Bold` : found;
}

/** How a text is laid out: whole, where it runs from the right, since word by word its words would stand the wrong way round. */
export function layoutOf(text: string): { features?: PDFKit.Mixins.OpenTypeFeatures[] } {
  return /\p{Script=Hebrew}|\p{Script=Arabic}/u.test(text) ? { features: [] } : {};
}

/** How much higher than others a text is to stand so that all of a row stand on one line: letters of Arabic reach lower and higher. */
export function riseOf(text: string, size: number): number {
  return fontFor('sans', text) === 'arabic' ? ARABIC_RISE * size : 0;
}

/** The ascender of the font of Arabic less that of the sans, in sizes of the font. */
const ARABIC_RISE = 0.37;
