import { afterAll, describe, expect, test } from '@jest/globals';
import iconv from 'iconv-lite';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encodingOf } from './encoding.ts';

/** Encodings are judged by the whole file, by what makes words of a language. */

const dir = mkdtempSync(join(tmpdir(), 'just-tally-encoding-'));
afterAll(() => rmSync(dir, { recursive: true }));
const judged = (bytes: Buffer) => {
  const path = join(dir, 'file.csv');
  writeFileSync(path, bytes);
  return encodingOf(path);
};

describe('a text', () => {
  test.each([
    ['windows-1252', 'Müller & Söhne;Größe;Köln;Ölfuß;Düsseldorf'],
    ['windows-1252', 'Menuiserie Générale de l’Été;Forêt;Château;Besançon;cœur'],
    ['windows-1252', 'Carpintería Peña;Málaga;Niño;A Coruña;«obra»'],
    ['windows-1252', 'Træværk Sørensen;Århus;Køkken;Ærø'],
    ['windows-1252', 'Møbelverksted;Tromsø;Ålesund – kjøkken'],
    ['windows-1250', 'Dřevařství Kůň;Truhlářství Šťastný;Žluťoučký;Ústí'],
    ['windows-1250', 'Zakład Stolarski Łąka;Łódź;Ślusarstwo;Więcej'],
    ['windows-1250', 'Fűrészüzem;Győr;Asztalos műhely;Székesfehérvár'],
    ['windows-1250', 'Stolárstvo Ľupča;Košice;Žilina;Šaľa – dielňa'],
    ['windows-1251', 'Дърводелство;София;Столарска къща'],
    ['windows-1253', 'Ξυλουργείο;Αθήνα;Μέταλλο;Θεσσαλονίκη'],
    ['windows-1254', 'Marangoz Işık;İstanbul;Doğan Çelik;Muğla;Güneş'],
    ['windows-1257', 'Medžio dirbtuvė;Šiauliai;Panevėžys;Ąžuolas'],
    ['iso-8859-2', 'Dřevařství Kůň;Truhlářství Šťastný;Plzeň'],
    ['shift_jis', '会社名;きむら製作所;やまだ工業;トウヨウ'],
    ['gb18030', '公司名称;木工制造有限公司;金属加工厂'],
  ])('in %s: %s', (encoding, text) => {
    const bytes = iconv.encode(text, encoding);
    const found = judged(bytes);
    expect(iconv.decode(bytes, found.encoding)).toBe(text);
    expect(found).toEqual({ encoding, undecodable: 0 });
  });
  test('of plain letters, or in UTF-8, is UTF-8', () => {
    expect(judged(Buffer.from('Company;Town'))).toEqual({ encoding: 'utf-8', undecodable: 0 });
    for (const text of ['é', 'Žluťoučký kůň', '会社', '𝔘nusual 😀', '\ufeffmark'])
      expect(judged(Buffer.from(text))).toEqual({ encoding: 'utf-8', undecodable: 0 });
  });
  test('of UTF-8 with a few damaged bytes is still that, and they are counted', () => {
    const good = Buffer.from('Žluťoučký kůň úpěl;'.repeat(20));
    const damaged = Buffer.concat([good, Buffer.from([0xff, 0x20, 0xe9]), good]);
    expect(judged(damaged)).toEqual({ encoding: 'utf-8', undecodable: 2 });
  });
  test('is judged by a letter far down, and across the edges of what is read at once', () => {
    const plain = Buffer.from('Company;Town\n'.repeat(200_000));
    expect(judged(Buffer.concat([plain, iconv.encode('Café;Générale', 'windows-1252')]))).toMatchObject({
      encoding: 'windows-1252',
    });
    // Characters of three bytes over the edge of every chunk, wherever they begin.
    for (const shift of [0, 1, 2])
      expect(judged(Buffer.from('x'.repeat(shift) + '会'.repeat(800_000)))).toEqual({
        encoding: 'utf-8',
        undecodable: 0,
      });
  });
});
