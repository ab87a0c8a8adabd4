/** What a company does. Codes are of NACE 2.1 and NAICS 2022; everything else is made up. */
export interface Sector {
  id: string;
  nace: string;
  /** Further NACE codes that companies of the sector often have. */
  also: string[];
  naics: string;
  weight: number;
  /** Where its companies gather. */
  gathers: 'wood' | 'coast' | 'works' | 'city' | 'any';
  /** Headcount is log-normal: mean and spread of its natural logarithm. */
  size: [number, number];
  /** Revenue a head in thousands of euros. */
  perHead: number;
  /** Trade words in names: Slavic, German, Nordic, Romance, English, other. */
  trade: [string[], string[], string[], string[], string[], string[]];
  /** Parts of a description: what, of what, for whom. */
  does: [string[], string[], string[]];
  /** How likely a surveyed site shows each technology category. */
  uses: Record<string, number>;
}

const office = { accounting: 0.5, 'customer-records': 0.2, 'web-shop': 0.08 };
const works = { ...office, 'production-planning': 0.28, 'computer-aided-design': 0.35, 'access-control': 0.15 };

const sector = (id: string, nace: string, also: string[], naics: string, weight: number, gathers: Sector['gathers'], size: [number, number], perHead: number, trade: Sector['trade'], does: Sector['does'], uses: Record<string, number> = works): Sector => ({ id, nace, also, naics, weight, gathers, size, perHead, trade, does, uses });

const WOODEN = ['oak and ash', 'larch', 'beech', 'solid wood', 'laminated timber'];
const BUILDERS = ['house builders', 'restorers of old buildings', 'architects', 'shop fitters', 'private clients'];

export const SECTORS: readonly Sector[] = [
  sector('joinery', '16.23', ['43.32', '16.25', '31.00', '16.11'], '321918', 90, 'wood', [1.7, 1.15], 95,
    [['Stolařství', 'Dřevo', 'Stolarka'], ['Tischlerei', 'Holzbau', 'Schreinerei'], ['Snickeri', 'Tømrer', 'Puu'], ['Menuiserie', 'Falegnameria', 'Carpintería'], ['Joinery', 'Woodwork', 'Timber'], ['Asztalos', 'Puit', 'Mizar']],
    [['Joinery workshop making staircases', 'Joinery for stairs and railings', 'Builders’ joinery: roof struts and shutters', 'Spiral staircase and balustrade makers', 'Prefabricated timber frames and joinery'], WOODEN, BUILDERS]),
  sector('doors', '16.25', ['16.23', '43.32'], '321911', 60, 'wood', [2.6, 1.1], 120,
    [['Okna', 'Dveře', 'Okna i Drzwi'], ['Fensterbau', 'Türen'], ['Fönster', 'Vinduer', 'Ikkuna'], ['Fenêtres', 'Serramenti', 'Ventanas'], ['Windows', 'Doors'], ['Ablak', 'Aknad', 'Logi']],
    [['Windows and entrance doors', 'Sliding doors and winter gardens', 'Fire doors and sash windows'], ['wood', 'wood and aluminium', 'spruce and larch'], BUILDERS]),
  sector('coating', '25.51', ['25.53', '25.52', '28.99'], '332812', 70, 'works', [2.9, 1.0], 115,
    [['Povrchy', 'Lakovna', 'Lakiernia', 'Galvan'], ['Lackwerk', 'Oberflächen', 'Pulver'], ['Lackering', 'Overflade', 'Pinta'], ['Revêtements', 'Verniciatura', 'Recubrimientos'], ['Coatings', 'Finishing', 'Plating'], ['Felület', 'Pinnad', 'Lako']],
    [['Powder coating', 'Cathodic dip coating', 'Electroplating and passivation', 'Wet painting and powder coating', 'Hot-dip galvanising'], ['steel parts', 'aluminium profiles', 'castings', 'large welded pieces up to 12 m'], ['agricultural machinery builders', 'rail vehicle builders', 'furniture makers', 'car suppliers', 'crane builders']], { ...works, 'paint-line-control': 0.4 }),
  sector('composites', '22.26', ['22.22', '30.12', '25.63'], '326199', 35, 'coast', [2.7, 1.05], 130,
    [['Laminát', 'Kompozit', 'Plastyka'], ['Faserwerk', 'Kunststoff'], ['Komposit', 'Plast'], ['Composites', 'Compositi', 'Resinas'], ['Composites', 'Mouldings'], ['Műanyag', 'Komposiit']],
    [['Hand lay-up and infusion mouldings', 'Composite covers and housings', 'Glass-fibre tanks and hoods'], ['glass and carbon fibre', 'polyester laminate', 'epoxy prepreg'], ['boatbuilders', 'wind power', 'rail interiors', 'bus builders']], { ...works, 'paint-line-control': 0.1 }),
  sector('printing', '18.12', ['18.13', '17.21'], '323111', 60, 'city', [2.3, 1.1], 105,
    [['Tiskárna', 'Drukarnia'], ['Druck', 'Medien'], ['Tryck', 'Grafisk', 'Paino'], ['Imprimerie', 'Tipografia', 'Gráficas'], ['Print', 'Press'], ['Nyomda', 'Trükk', 'Spauda']],
    [['Offset and digital printing', 'Label and packaging printing', 'Screen printing and finishing'], ['paper and board', 'self-adhesive film', 'folding cartons'], ['food makers', 'publishers', 'local trade', 'cosmetics brands']], { ...works, 'web-shop': 0.2 }),
  sector('furniture', '31.00', ['16.23', '43.32'], '337110', 70, 'wood', [2.2, 1.2], 90,
    [['Nábytek', 'Meble'], ['Möbel', 'Einrichtung'], ['Möbler', 'Møbler', 'Kaluste'], ['Meubles', 'Arredi', 'Muebles'], ['Furniture', 'Interiors'], ['Bútor', 'Mööbel', 'Baldai']],
    [['Kitchens and fitted furniture', 'Contract furniture', 'Seating and tables'], WOODEN, ['hotels', 'offices', 'private clients', 'schools']]),
  sector('boats', '30.12', ['33.15', '22.26'], '336612', 14, 'coast', [2.2, 1.1], 140,
    [['Lodě', 'Jachty'], ['Bootsbau', 'Werft'], ['Båt', 'Bådværft', 'Vene'], ['Nautique', 'Cantiere', 'Náutica'], ['Boats', 'Marine'], ['Hajó', 'Laev']],
    [['Sailing yachts and day boats', 'Workboats and tenders', 'Refit of yachts'], ['glass fibre', 'wood and epoxy', 'aluminium'], ['private owners', 'harbours', 'charter firms']]),
  sector('air', '28.25', ['28.29', '33.12', '43.22'], '333413', 22, 'works', [3.6, 1.1], 175,
    [['Vzducho', 'Filtr', 'Went'], ['Lufttechnik', 'Filter'], ['Ventilation', 'Luft', 'Ilma'], ['Aéraulique', 'Aria', 'Ventilación'], ['Air', 'Extraction', 'Filtration'], ['Légtechnika', 'Õhk', 'Vėdinimas']],
    [['Dust extraction and air cleaning plant', 'Industrial fans and ducting', 'Solvent recovery and exhaust air plant', 'Spray booths and ventilation'], ['bag and cartridge filters', 'activated carbon', 'welded steel housings'], ['woodworking shops', 'coating shops', 'printers', 'foundries']]),
  sector('machine-dealers', '46.62', ['46.64', '33.12'], '423830', 30, 'works', [2.0, 1.1], 420,
    [['Stroje', 'Maszyny'], ['Maschinenhandel', 'Technik'], ['Maskin', 'Kone'], ['Machines', 'Macchine', 'Maquinaria'], ['Machinery', 'Tools'], ['Gépker', 'Masinad']],
    [['Wholesale of machine tools', 'Dealer in woodworking machines and workshop supplies', 'Sale and service of workshop machines'], ['new and used', 'saws, planers and presses', 'spray guns and filters'], ['joiners', 'metal workshops', 'training centres']], { ...office, 'web-shop': 0.35, 'customer-records': 0.5 }),
  sector('machining', '25.53', ['25.62', '25.63', '33.11'], '332710', 60, 'works', [2.6, 1.1], 110,
    [['Obrábění', 'Obróbka'], ['Zerspanung', 'Metallbau'], ['Mekanik', 'Verkstad'], ['Usinage', 'Meccanica', 'Mecanizados'], ['Engineering', 'Precision'], ['Forgács', 'Metall']],
    [['Turning and milling', 'Five-axis machining', 'Machined parts and assemblies'], ['steel', 'stainless steel and titanium', 'aluminium'], ['machine builders', 'medical makers', 'car suppliers']]),
  sector('metal-structures', '25.11', ['25.12', '25.51'], '332322', 50, 'works', [2.7, 1.1], 120,
    [['Konstrukce', 'Konstrukcje'], ['Stahlbau'], ['Stål', 'Teräs'], ['Métallerie', 'Carpenteria', 'Estructuras'], ['Steelwork', 'Fabrication'], ['Acél', 'Teras']],
    [['Steel structures and stairs', 'Sheet metal work', 'Welded frames and railings'], ['steel', 'stainless steel', 'aluminium'], ['builders', 'plant makers', 'farmers']]),
  sector('tools', '25.63', ['25.53'], '332710', 18, 'works', [3.0, 1.1], 135,
    [['Nástroje', 'Narzędzia'], ['Werkzeuge'], ['Verktyg', 'Työkalu'], ['Outillage', 'Utensili', 'Utillajes'], ['Tooling'], ['Szerszám', 'Tööriist']],
    [['Press tools and moulds', 'Cutting tools'], ['hardened steel', 'carbide'], ['car suppliers', 'plastics moulders']]),
  sector('plastics', '22.22', ['22.26'], '326199', 35, 'works', [3.2, 1.15], 190,
    [['Plasty', 'Tworzywa'], ['Kunststofftechnik'], ['Plast', 'Muovi'], ['Plastiques', 'Plastica', 'Plásticos'], ['Plastics', 'Packaging'], ['Műanyag', 'Plast']],
    [['Plastic packaging', 'Blown film and bags', 'Injection moulded closures'], ['recycled film', 'polypropylene', 'PET'], ['food makers', 'chemists', 'logistics firms']]),
  sector('painters', '43.34', ['43.33'], '238320', 55, 'city', [1.2, 0.95], 75,
    [['Malby', 'Malowanie'], ['Maler', 'Malerbetrieb'], ['Måleri', 'Maler', 'Maalaus'], ['Peinture', 'Pitture', 'Pintores'], ['Decorators', 'Painters'], ['Festő', 'Maaler']],
    [['Painters and glaziers', 'Facade painting', 'Interior decoration'], ['lime and silicate paints', 'wallpaper', 'lacquer'], BUILDERS], office),
  sector('fitting', '43.32', ['43.34', '16.23'], '238350', 45, 'any', [1.2, 0.95], 80,
    [['Montáže', 'Montaż'], ['Montage', 'Innenausbau'], ['Bygg', 'Montage', 'Asennus'], ['Pose', 'Montaggi', 'Montajes'], ['Fitters', 'Installations'], ['Szerelő', 'Montaaž']],
    [['Joinery installation', 'Fitting of kitchens and doors', 'Dry lining and built-in furniture'], ['wood', 'board and glass', 'ready-made elements'], BUILDERS], office),
  sector('building', '41.00', ['43.99', '43.91'], '236115', 150, 'any', [1.9, 1.25], 150,
    [['Stavby', 'Budowa'], ['Bau', 'Hochbau'], ['Bygg', 'Byg', 'Rakennus'], ['Bâtiment', 'Costruzioni', 'Construcciones'], ['Builders', 'Homes'], ['Építő', 'Ehitus', 'Statyba']],
    [['House building', 'Building contractor', 'Extensions and conversions'], ['brick', 'timber frame', 'concrete'], ['private clients', 'housing companies', 'municipalities']], office),
  sector('haulage', '49.41', ['52.10', '52.31'], '484121', 110, 'any', [2.0, 1.2], 140,
    [['Doprava', 'Transport'], ['Spedition', 'Logistik'], ['Åkeri', 'Kuljetus'], ['Transports', 'Trasporti', 'Transportes'], ['Haulage', 'Freight'], ['Fuvar', 'Veod']],
    [['Road haulage', 'Part loads and groupage', 'Tipper and bulk transport'], ['own fleet', 'refrigerated trailers', 'tarpaulin trailers'], ['industry', 'food trade', 'builders']], { ...office, 'fleet-control': 0.5 }),
  sector('software', '62.10', ['62.20', '63.10'], '541512', 110, 'city', [1.9, 1.25], 120,
    [['Soft', 'Systémy'], ['Software', 'Daten'], ['Data', 'System'], ['Logiciels', 'Informatica', 'Sistemas'], ['Software', 'Systems'], ['Szoftver', 'Tarkvara']],
    [['Software for workshops', 'Custom programming', 'Data services'], ['planning and stock', 'web services', 'embedded devices'], ['makers', 'public offices', 'trade']], { ...office, 'customer-records': 0.55 }),
  sector('advice', '70.20', ['69.20', '73.20'], '541611', 90, 'city', [1.1, 1.0], 110,
    [['Poradenství', 'Doradztwo'], ['Beratung'], ['Rådgivning', 'Konsultti'], ['Conseil', 'Consulenza', 'Consultores'], ['Advisers', 'Consulting'], ['Tanácsadó', 'Nõu']],
    [['Business advice', 'Costing and grants', 'Succession and sale of firms'], ['small works', 'family firms', 'new ventures'], ['makers', 'trade', 'local councils']], office),
  sector('restaurants', '56.11', ['55.10'], '722511', 160, 'city', [1.6, 0.9], 55,
    [['Hostinec', 'Karczma'], ['Gasthaus'], ['Krog', 'Kro', 'Ravintola'], ['Auberge', 'Trattoria', 'Mesón'], ['Inn', 'Kitchen'], ['Étterem', 'Kõrts']],
    [['Restaurant and catering', 'Inn with rooms', 'Canteens'], ['regional dishes', 'fish', 'seasonal menus'], ['guests', 'events', 'works canteens']], { accounting: 0.4, 'web-shop': 0.1 }),
  sector('hardware-shops', '47.52', ['46.83'], '423310', 70, 'any', [1.6, 1.0], 190,
    [['Stavebniny', 'Skład'], ['Baumarkt', 'Eisenwaren'], ['Järn', 'Rauta'], ['Quincaillerie', 'Ferramenta', 'Ferretería'], ['Hardware', 'Supplies'], ['Vaskereskedés', 'Ehituskaup']],
    [['Hardware, paints and glass', 'Timber and building materials', 'Tools and fittings'], ['from stock', 'cut to size', 'own brands'], ['craftsmen', 'builders', 'private clients']], { ...office, 'web-shop': 0.45 }),
  sector('repair', '95.31', [], '811111', 110, 'any', [1.2, 0.85], 90,
    [['Autoservis', 'Warsztat'], ['Autohaus', 'Werkstatt'], ['Bilverkstad', 'Autokorjaamo'], ['Garage', 'Officina', 'Taller'], ['Motors', 'Garage'], ['Autószerviz', 'Autohooldus']],
    [['Repair of cars and vans', 'Body and paint shop', 'Tyres and brakes'], ['all makes', 'commercial vehicles', 'electric vehicles'], ['private owners', 'fleets', 'insurers']], office),
  sector('bakery', '10.71', ['47.24'], '311811', 60, 'any', [2.3, 1.0], 60,
    [['Pekařství', 'Piekarnia'], ['Bäckerei'], ['Bageri', 'Leipomo'], ['Boulangerie', 'Panificio', 'Panadería'], ['Bakery'], ['Pékség', 'Pagar']],
    [['Bread and fresh pastry', 'Bakery with shops', 'Rye bread and rolls'], ['long fermentation', 'regional grain', 'butter dough'], ['own shops', 'canteens', 'grocers']], { accounting: 0.45, 'web-shop': 0.1 }),
  sector('engineers', '71.12', ['71.20'], '541330', 90, 'city', [1.7, 1.1], 105,
    [['Projekt', 'Inżynieria'], ['Ingenieure', 'Planung'], ['Teknik', 'Suunnittelu'], ['Ingénierie', 'Ingegneria', 'Ingeniería'], ['Engineers', 'Design'], ['Mérnök', 'Inseneri']],
    [['Design engineers for plant and buildings', 'Ventilation and heating design', 'Structural design'], ['timber and steel', 'air and heat', 'process plant'], ['industry', 'architects', 'public works']], { ...office, 'computer-aided-design': 0.7 }),
  sector('property', '68.20', [], '531120', 70, 'city', [0.9, 1.0], 260,
    [['Reality', 'Nieruchomości'], ['Immobilien'], ['Fastigheter', 'Kiinteistö'], ['Immobilier', 'Immobiliare', 'Inmobiliaria'], ['Property', 'Estates'], ['Ingatlan', 'Kinnisvara']],
    [['Letting of workshops and offices', 'Own industrial park', 'Letting of homes'], ['small units', 'halls with cranes', 'old mills'], ['craftsmen', 'logistics', 'tenants']], office),
  sector('farming', '01.11', ['01.50'], '111140', 70, 'any', [1.1, 1.0], 130,
    [['Statek', 'Gospodarstwo'], ['Agrar', 'Hof'], ['Lantbruk', 'Maatila'], ['Ferme', 'Azienda Agricola', 'Agrícola'], ['Farms'], ['Gazdaság', 'Talu']],
    [['Cereals and oil seeds', 'Mixed farm', 'Seed growing'], ['own storage', 'contract work', 'organic'], ['mills', 'traders', 'neighbours']], { accounting: 0.3 }),
  sector('care', '86.21', [], '621111', 70, 'city', [1.4, 0.8], 95,
    [['Ordinace', 'Przychodnia'], ['Praxis'], ['Vårdcentral', 'Lääkäri'], ['Cabinet', 'Studio Medico', 'Clínica'], ['Practice'], ['Rendelő', 'Perearst']],
    [['General practice', 'Family doctors', 'Group practice'], ['home visits', 'occupational health', 'small laboratory'], ['patients', 'works', 'schools']], { accounting: 0.4 }),
  sector('car-parts', '29.32', ['22.26', '25.53'], '336390', 16, 'works', [4.4, 1.2], 210,
    [['Díly', 'Części'], ['Fahrzeugteile'], ['Fordon', 'Auto-osat'], ['Équipements', 'Componenti', 'Componentes'], ['Components'], ['Alkatrész', 'Autoosad']],
    [['Parts for vehicles', 'Interior trim', 'Brake and chassis parts'], ['pressed steel', 'moulded parts', 'assemblies'], ['car makers', 'bus builders', 'spare part trade']], { ...works, 'production-planning': 0.6, 'paint-line-control': 0.2 }),
];
