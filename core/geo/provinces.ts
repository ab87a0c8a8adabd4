import { fold } from '../text/fold.ts';

/**
 * Provinces and départements by the region that they lie in, for countries of which the gazetteer has the larger regions alone: their
 * code, then their names. From ISO 3166-2:IT and -ES, the codes of INE and of INSEE.
 */
const PROVINCES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  // Under their names in the other languages of the country, and shorter ones in use.
  BE: {
    BRU: 'BRU Région de Bruxelles-Capitale, BHG Brussels Hoofdstedelijk Gewest, BXL Bruxelles, BXL Brussel',
    VAN: 'AN Anvers',
    VLI: 'LI Limbourg',
    VBR: 'VB Brabant flamand',
    VOV: 'OV Flandre-Orientale',
    VWV: 'WV Flandre-Occidentale',
    WBR: 'BW Waals-Brabant',
    WHT: 'HT Henegouwen',
    WLG: 'LG Luik, LG Lüttich',
    WLX: 'LX Luxemburg',
    WNA: 'NA Namen',
  },
  DE: {
    NW: 'NRW Nordrhein Westfalen',
    BW: 'BaWü Baden Württemberg',
    MV: 'MeckPomm Mecklenburg Vorpommern',
    RP: 'RLP Rheinland Pfalz',
  },
  FR: {
    ARA: '01 Ain, 03 Allier, 07 Ardèche, 15 Cantal, 26 Drôme, 38 Isère, 42 Loire, 43 Haute-Loire, 63 Puy-de-Dôme, 69 Rhône, 73 Savoie, 74 Haute-Savoie',
    BFC: '21 Côte-d’Or, 25 Doubs, 39 Jura, 58 Nièvre, 70 Haute-Saône, 71 Saône-et-Loire, 89 Yonne, 90 Territoire de Belfort',
    BRE: '22 Côtes-d’Armor, 29 Finistère, 35 Ille-et-Vilaine, 56 Morbihan',
    CVL: '18 Cher, 28 Eure-et-Loir, 36 Indre, 37 Indre-et-Loire, 41 Loir-et-Cher, 45 Loiret',
    '20R': '2A Corse-du-Sud, 2B Haute-Corse',
    GES: '08 Ardennes, 10 Aube, 51 Marne, 52 Haute-Marne, 54 Meurthe-et-Moselle, 55 Meuse, 57 Moselle, 67 Bas-Rhin, 68 Haut-Rhin, 88 Vosges',
    HDF: '02 Aisne, 59 Nord, 60 Oise, 62 Pas-de-Calais, 80 Somme',
    IDF: '75 Paris, 77 Seine-et-Marne, 78 Yvelines, 91 Essonne, 92 Hauts-de-Seine, 93 Seine-Saint-Denis, 94 Val-de-Marne, 95 Val-d’Oise',
    NOR: '14 Calvados, 27 Eure, 50 Manche, 61 Orne, 76 Seine-Maritime',
    NAQ: '16 Charente, 17 Charente-Maritime, 19 Corrèze, 23 Creuse, 24 Dordogne, 33 Gironde, 40 Landes, 47 Lot-et-Garonne, 64 Pyrénées-Atlantiques, 79 Deux-Sèvres, 86 Vienne, 87 Haute-Vienne',
    OCC: '09 Ariège, 11 Aude, 12 Aveyron, 30 Gard, 31 Haute-Garonne, 32 Gers, 34 Hérault, 46 Lot, 48 Lozère, 65 Hautes-Pyrénées, 66 Pyrénées-Orientales, 81 Tarn, 82 Tarn-et-Garonne',
    PDL: '44 Loire-Atlantique, 49 Maine-et-Loire, 53 Mayenne, 72 Sarthe, 85 Vendée',
    PAC: '04 Alpes-de-Haute-Provence, 05 Hautes-Alpes, 06 Alpes-Maritimes, 13 Bouches-du-Rhône, 83 Var, 84 Vaucluse',
  },
  // Ceremonial counties, whose codes nobody writes, and the countries of the kingdom that are one region.
  GB: {
    'east-midlands':
      '_ Derbyshire, _ Leicestershire, _ Lincolnshire, _ Northamptonshire, _ Nottinghamshire, _ Rutland',
    'east-of-england': '_ Bedfordshire, _ Cambridgeshire, _ Essex, _ Hertfordshire, _ Norfolk, _ Suffolk',
    london: '_ London, _ City of London, _ Middlesex',
    'north-east': '_ County Durham, _ Durham, _ Northumberland, _ Tyne and Wear, _ Cleveland',
    'north-west': '_ Cheshire, _ Cumbria, _ Greater Manchester, _ Lancashire, _ Merseyside',
    'south-east':
      '_ Berkshire, _ Buckinghamshire, _ East Sussex, _ Hampshire, _ Isle of Wight, _ Kent, _ Oxfordshire, _ Surrey, _ West Sussex, _ Sussex',
    'south-west':
      '_ Avon, _ Bristol, _ Cornwall, _ Devon, _ Dorset, _ Gloucestershire, _ Somerset, _ Wiltshire',
    'west-midlands': '_ Herefordshire, _ Shropshire, _ Staffordshire, _ Warwickshire, _ Worcestershire',
    'yorkshire-humber':
      '_ East Riding of Yorkshire, _ East Yorkshire, _ Humberside, _ North Yorkshire, _ South Yorkshire, _ West Yorkshire, _ Yorkshire',
    NIR: '_ County Antrim, _ County Armagh, _ County Down, _ County Fermanagh, _ County Londonderry, _ County Tyrone, _ N Ireland',
  },
  IT: {
    '21': 'TO Torino, VC Vercelli, NO Novara, CN Cuneo, AT Asti, AL Alessandria, BI Biella, VB Verbano-Cusio-Ossola',
    '23': 'AO Aosta',
    '25': 'VA Varese, CO Como, SO Sondrio, MI Milano, BG Bergamo, BS Brescia, PV Pavia, CR Cremona, MN Mantova, LC Lecco, LO Lodi, MB Monza e della Brianza, MB Monza e Brianza',
    '32': 'TN Trento, BZ Bolzano, BZ Bolzano/Bozen',
    '34': 'VR Verona, VI Vicenza, BL Belluno, TV Treviso, VE Venezia, PD Padova, RO Rovigo',
    '36': 'UD Udine, GO Gorizia, TS Trieste, PN Pordenone',
    '42': 'IM Imperia, SV Savona, GE Genova, SP La Spezia',
    '45': 'PC Piacenza, PR Parma, RE Reggio Emilia, RE Reggio nell’Emilia, MO Modena, BO Bologna, FE Ferrara, RA Ravenna, FC Forlì-Cesena, RN Rimini',
    '52': 'MS Massa-Carrara, LU Lucca, PT Pistoia, FI Firenze, LI Livorno, PI Pisa, AR Arezzo, SI Siena, GR Grosseto, PO Prato',
    '55': 'PG Perugia, TR Terni',
    '57': 'PU Pesaro e Urbino, AN Ancona, MC Macerata, AP Ascoli Piceno, FM Fermo',
    '62': 'VT Viterbo, RI Rieti, RM Roma, LT Latina, FR Frosinone',
    '65': 'AQ L’Aquila, TE Teramo, PE Pescara, CH Chieti',
    '67': 'CB Campobasso, IS Isernia',
    '72': 'CE Caserta, BN Benevento, NA Napoli, AV Avellino, SA Salerno',
    '75': 'FG Foggia, BA Bari, TA Taranto, BR Brindisi, LE Lecce, BT Barletta-Andria-Trani',
    '77': 'PZ Potenza, MT Matera',
    '78': 'CS Cosenza, CZ Catanzaro, RC Reggio Calabria, RC Reggio di Calabria, KR Crotone, VV Vibo Valentia',
    '82': 'TP Trapani, PA Palermo, ME Messina, AG Agrigento, CL Caltanissetta, EN Enna, CT Catania, RG Ragusa, SR Siracusa',
    '88': 'SS Sassari, NU Nuoro, CA Cagliari, OR Oristano, SU Sud Sardegna',
  },
  ES: {
    AN: '04 Almería, 11 Cádiz, 14 Córdoba, 18 Granada, 21 Huelva, 23 Jaén, 29 Málaga, 41 Sevilla',
    AR: '22 Huesca, 44 Teruel, 50 Zaragoza',
    AS: '33 Asturias, 33 Oviedo',
    CB: '39 Cantabria, 39 Santander',
    CE: '51 Ceuta',
    ML: '52 Melilla',
    CL: '05 Ávila, 09 Burgos, 24 León, 34 Palencia, 37 Salamanca, 40 Segovia, 42 Soria, 47 Valladolid, 49 Zamora',
    CM: '02 Albacete, 13 Ciudad Real, 16 Cuenca, 19 Guadalajara, 45 Toledo',
    CN: '35 Las Palmas, 35 Palmas Las, 38 Santa Cruz de Tenerife, 38 Tenerife',
    CT: '08 Barcelona, 17 Girona, 17 Gerona, 25 Lleida, 25 Lérida, 43 Tarragona',
    EX: '06 Badajoz, 10 Cáceres',
    GA: '15 A Coruña, 15 La Coruña, 15 Coruña A, 27 Lugo, 32 Ourense, 32 Orense, 36 Pontevedra',
    IB: '07 Illes Balears, 07 Baleares, 07 Islas Baleares, 07 Balears Illes',
    MC: '30 Murcia',
    MD: '28 Madrid',
    NC: '31 Navarra',
    PV: '01 Álava, 01 Araba, 01 Araba/Álava, 20 Gipuzkoa, 20 Guipúzcoa, 48 Bizkaia, 48 Vizcaya',
    RI: '26 La Rioja, 26 Rioja La, 26 Logroño',
    VC: '03 Alicante, 03 Alacant, 03 Alicante/Alacant, 12 Castellón, 12 Castelló, 12 Castellón/Castelló, 46 Valencia, 46 València, 46 Valencia/València',
  },
};

const plain = (text: string): string =>
  fold(text)
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Keys of regions by country and then by the code or a name of a province. */
const REGIONS: ReadonlyMap<string, ReadonlyMap<string, string>> = new Map(
  Object.entries(PROVINCES).map(([country, regions]) => [
    country,
    new Map(
      Object.entries(regions).flatMap(([region, provinces]) =>
        provinces.split(', ').flatMap((province) => {
          const [code, ...name] = province.split(' ');
          return (code === '_' ? [name.join(' ')] : [code!, name.join(' ')]).map(
            (text) => [plain(text), `${country}-${region}`] as const,
          );
        }),
      ),
    ),
  ]),
);

/**
 * The key of the region that a province of a country lies in, by its code or name, or both ("69", "Rhône", "69 - Rhône", "Milano (MI)",
 * "provincia di Verona"); null where it is none.
 */
export function regionOfProvince(text: string, country: string): string | null {
  const provinces = REGIONS.get(country);
  if (!provinces) return null;
  const whole = plain(text).replace(/^(?:provincia|prov|departement|dep|dpt)(?: di| de| du)? /, '');
  const bare = whole.replace(/^\d[\dab] | [a-z]{2}$/, '');
  // A nought is lost where codes became figures.
  return provinces.get(whole) ?? provinces.get(bare) ?? provinces.get(`0${whole}`) ?? null;
}
