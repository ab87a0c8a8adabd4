import { foldedWords } from '../text/fold.ts';

/** Words for the values of categories in the languages that files of companies come in, by value; folded when they are looked up. */

export const STATUS_WORDS = meaning({
  active:
    'active, active proposal to strike off, in existence, good standing, in good standing, registrisse kantud, aktiv, aktivni, aktywna, aktywny, yes, in business, operating, trading, in operation, live, registered, bestehend, eingetragen, zapsana, zapisana, aktivna, cinna, czynna, dzialajaca, en activite, actif, active societe, attiva, attivo, activa, activo, ativa, mukodo, actief, aktivt, aktiivinen, normal',
  dormant:
    'dormant, inactive, ruhend, inaktiv, neaktivni, neaktivna, pozastavena, prerusena, zawieszona, nieaktywna, en sommeil, inactif, inactive societe, inattiva, inactiva, szunetelo, inactief, vilande, hvilende',
  closed:
    'closed, forfeited, forfeited existence, revoked, cancelled, canceled, withdrawn, terminated, likvideerimisel, kustutatud, under konkurs, dissolved, liquidated, in liquidation, liquidation, in administration, administration, in receivership, receivership, converted closed, struck off, deregistered, insolvent, in insolvency, bankrupt, ceased, erloschen, geloscht, aufgelost, in liquidation befindlich, insolvenz, zanikla, zaniknuta, vymazana, zrusena, v likvidaci, v likvidacii, v konkurzu, v insolvenci, wykreslona, w likwidacji, w upadlosci, zlikwidowana, radiee, radie, en liquidation, fermee, cessee, cessata, cancellata, in liquidazione, liquidata, disuelta, en liquidacion, extinguida, dissolvida, torolt, felszamolas alatt, opgeheven, avregistrerad, opphort, konkurs, upadla, lakannut, radiata',
});

export const OWNERSHIP_WORDS = meaning({
  independent:
    'independent, standalone, unabhangig, eigenstandig, nezavisla, samostatna, niezalezna, independante, indipendente, independiente, onafhankelijk, fuggetlen, zelfstandig',
  subsidiary:
    'subsidiary, tochter, tochtergesellschaft, tochterunternehmen, dcerina spolecnost, dcerina, dcerska, spolka zalezna, spolka corka, filiale, controllata, filial, leanyvallalat, dochteronderneming, dochter, datterselskab, dotterbolag',
  top: 'top, top company, top of a group, parent, ultimate parent, holding, mutter, muttergesellschaft, konzernmutter, materska spolecnost, materska, spolka matka, spolka dominujaca, societe mere, capogruppo, matriz, anyavallalat, moedermaatschappij, moderbolag, moderselskab',
});

export const LISTING_WORDS = meaning({
  listed:
    'listed, public, public company, publicly traded, publicly held, publicly listed, quoted, borsennotiert, gelistet, kotovana, verejne obchodovana, gieldowa, notowana, cotee, quotata, cotizada, cotada, tozsdei, beursgenoteerd, borsnoterad, noteret',
  private:
    'private, privately held, private company, privately owned, unlisted, not listed, privat, nicht borsennotiert, soukroma, sukromna, prywatna, nienotowana, non cotee, privee, non quotata, privata, privada, no cotizada, particulier, privat ejet',
  'public-body':
    'public body, public sector, state owned, government, municipal, offentlich, offentliche hand, staatlich, kommunal, verejna, statni, statna, obecni, panstwowa, publiczna, publique, etat, pubblica, publica, allami, overheid, offentlig, kommunal',
});

/** How a website answered when it was tried. */
export const SITE_WORDS = meaning({
  works: 'works, ok, online, live, up, erreichbar, funkcni, dziala, en ligne, attivo, activo',
  moved: 'moved, redirected, redirects, umgezogen, weitergeleitet, presmerovano, przeniesiona, deplace',
  parked: 'parked, for sale, geparkt, zaparkovano, zaparkowana, parque',
  dead: 'dead, down, offline, unreachable, no answer, nicht erreichbar, nefunkcni, nie dziala, hors ligne',
});

/** Whether a figure is told, guessed or only known to lie within a band. */
export const BASIS_WORDS = meaning({
  reported:
    'reported, exact, actual, audited, filed, register, gemeldet, berichtet, exakt, tatsachlich, vykazano, skutecnost, presne, wykazane, dokladne, publie, reel, declare, dichiarato, effettivo, reportado, real',
  estimate:
    'estimate, estimated, modelled, modeled, model, guess, approx, approximate, geschatzt, schatzung, modelliert, odhad, odhadnuto, odhadovane, szacunek, szacowane, oszacowane, estime, estimation, stima, stimato, estimado, estimacion, becsult, becsles, geschat, schatting, estimeret, uppskattad',
  band: 'band, range, bracket, class, bandbreite, spanne, groessenklasse, rozmezi, pasmo, rozpeti, przedzial, tranche, fourchette, fascia, intervallo, tramo, rango, sav, bandbreedte, interval',
});

/** Reads a word as the value that it means; undefined where it is none of them. */
export type Meaning<T extends string> = (word: string) => T | undefined;

function meaning<T extends string>(words: Readonly<Record<T, string>>): Meaning<T> {
  const values = new Map<string, T>();
  for (const value of Object.keys(words) as T[])
    for (const word of words[value].split(',')) values.set(plainWord(word), value);
  return (word) => values.get(plainWord(word));
}

/** A word of a category as such words are compared: folded, without marks between its parts. */
export function plainWord(word: string): string {
  return foldedWords(word).join(' ');
}

/** Words for the values of fields of people, sites, deals and events, by field and value. */
const RELATED_WORDS: Readonly<Record<string, Meaning<string>>> = {
  department: meaning({
    management:
      'executive, general management, board, leadership, geschaeftsfuhrung, geschaftsleitung, leitung, vorstand, vedeni, vedenie, zarzad, kierownictwo, direction, direction generale, direzione, direccion, gerencia, vezetes, directie, ledning, ledelse',
    production:
      'manufacturing, operations, plant, fertigung, produktion, herstellung, betrieb, vyroba, provoz, produkcja, wytwarzanie, fabrication, produzione, produccion, fabricacion, gyartas, termeles, productie, tillverkning',
    engineering:
      'technical, development, r d, research and development, design, technik, konstruktion, entwicklung, technika, vyvoj, konstrukce, technicke oddeleni, technologia, inzynieria, konstrukcja, technique, bureau d etudes, ingenierie, ingegneria, tecnico, ingenieria, fejlesztes, muszaki, techniek',
    sales:
      'commercial, business development, marketing and sales, vertrieb, verkauf, obchod, prodej, obchodni oddeleni, predaj, sprzedaz, handel, handlowy, ventes, commerciale, vendite, ventas, comercial, ertekesites, verkoop, forsaljning, salg',
    purchasing:
      'procurement, buying, sourcing, supply, einkauf, beschaffung, nakup, nakupni oddeleni, zakupy, zaopatrzenie, achats, approvisionnement, acquisti, compras, beszerzes, inkoop, inkop, indkob',
    logistics:
      'supply chain, shipping, warehouse, transport, logistik, versand, lager, logistika, doprava, sklad, logistyka, magazyn, logistique, logistica, logisztika, logistiek',
    finance:
      'accounting, controlling, finanzen, buchhaltung, rechnungswesen, finance a ucetnictvi, ucetnictvi, ekonomicke oddeleni, ucto, uctovnictvo, finanse, ksiegowosc, comptabilite, finances, finanza, amministrazione e finanza, contabilidad, finanzas, penzugy, financien, ekonomi, okonomi',
    administration:
      'admin, office, human resources, hr, personnel, it, legal, verwaltung, personal, administrativa, sprava, personalni oddeleni, personalne, administracja, kadry, ressources humaines, amministrazione, administracion, recursos humanos, adminisztracio, administratie',
  }),
  level: meaning({
    owner:
      'proprietor, sole owner, partner, shareholder, inhaber, eigentumer, gesellschafter, majitel, spolecnik, majitelka, vlastnik, wlasciciel, wspolnik, proprietaire, titolare, proprietario, propietario, dueno, tulajdonos, eigenaar, agare, ejer',
    founder:
      'co founder, grunder, mitgrunder, zakladatel, spoluzakladatel, zalozyciel, fondateur, fondatore, fundador, alapito, oprichter, grundare',
    director:
      'managing director, ceo, cfo, coo, cto, c level, executive, board member, vp, vice president, geschaeftsfuhrer, vorstand, direktor, reditel, jednatel, predseda predstavenstva, riaditel, konatel, prezes, dyrektor, czlonek zarzadu, directeur, gerant, president, direttore, amministratore, gerente, ugyvezeto, igazgato, bestuurder, vd, direktor general',
    head: 'head of, department head, leiter, abteilungsleiter, bereichsleiter, vedouci, veduci, kierownik, szef, responsable, chef, responsabile, capo, jefe, vezeto, hoofd, leder',
    manager:
      'team lead, supervisor, foreman, manazer, manager, teamleiter, meister, mistr, menedzer, mistrz, brygadzista, cadre, coordinatore, coordinador, menedzser',
    specialist:
      'staff, employee, engineer, buyer, clerk, assistant, consultant, sachbearbeiter, fachkraft, mitarbeiter, specialista, referent, odbornik, pracovnik, specjalista, pracownik, specialiste, employe, specialista addetto, impiegato, especialista, tecnico, szakerto, medewerker, konsulent',
  }),
  'site kind': meaning({
    works:
      'plant, factory, manufacturing, production site, workshop, werk, fabrik, produktionsstatte, produktion, werkstatt, zavod, tovarna, vyroba, vyrobna, dilna, zaklad, fabryka, hala, usine, atelier, site de production, stabilimento, fabbrica, planta, fabrica, gyar, uzem, fabriek, fabrik anlaggning',
    branch:
      'branch office, subsidiary office, niederlassung, zweigstelle, filiale, filialka, pobocka, oddzial, filia, succursale, agence, sede secondaria, sucursal, delegacion, fioktelep, vestiging, filial, avdeling',
    store:
      'shop, retail, outlet, showroom, laden, geschaft, verkaufsstelle, ausstellung, prodejna, obchod, vzorkovna, sklep, salon, magasin, boutique, negozio, punto vendita, tienda, uzlet, winkel, butik, butikk',
    office:
      'head office, headquarters, sales office, regional office, hq, admin, buro, verwaltung, hauptsitz, kancelar, sidlo, ustredi, biuro, siedziba, centrala, bureau, siege, siege social, ufficio, sede, sede legale, oficina, iroda, szekhely, kantoor, kontor',
  }),
  'deal kind': meaning({
    'growth-loan':
      'loan, credit, debt, venture debt, debt financing, kredit, darlehen, wachstumskredit, uver, pozicka, kredyt, pozyczka, pret, dette, prestito, prestamo, hitel, lening, lan',
    'equity-round':
      'equity, funding round, funding, investment, capital increase, seed, pre seed, bridge round, series d, series e, series a, series b, series c, venture round, finanzierungsrunde, kapitalerhohung, beteiligung, investicni kolo, kapitalovy vstup, investice, runda finansowania, inwestycja, levee de fonds, augmentation de capital, round, aumento di capitale, ronda, tokeemeles, kapitaalronde',
    acquisition:
      'takeover, purchase, full acquisition, majority stake, majority acquisition, share deal, asset deal, m a, acquired, ubernahme, akquisition, kauf, akvizice, prevzeti, akvizicia, przejecie, akwizycja, rachat, acquisizione, adquisicion, compra, felvasarlas, overname, uppkop, opkob',
    merger:
      'fusion, verschmelzung, zusammenschluss, fuze, slouceni, fuzia, polaczenie, fuzja, fusione, fusion empresas, osszeolvadas, fusie',
    'buy-out':
      'buyout, mbo, mbi, lbo, management buy out, management buyout, leveraged buyout, manazersky odkup, wykup menedzerski',
  }),
  'event kind': meaning({
    'job-opening':
      'job, vacancy, hiring, job ad, stellenanzeige, offene stelle, volne misto, inzerat prace, oferta pracy, offre d emploi, offerta di lavoro, oferta de empleo, allashirdetes, vacature',
    appointment:
      'appointed, hired, joined, new hire, ernennung, berufung, jmenovani, nastup, powolanie, mianowanie, nomination, nomina, nombramiento, kinevezes, benoeming',
    departure:
      'left, resigned, retired, leaver, abgang, ausscheiden, odchod, odwolanie, rezygnacja, depart, uscita, dimissioni, salida, tavozas, vertrek',
    move: 'relocation, relocated, moved, new premises, umzug, standortwechsel, stehovani, zmena sidla, przeprowadzka, zmiana siedziby, demenagement, trasferimento, traslado, koltozes, verhuizing',
    'new-line':
      'new production line, expansion, investment in plant, new machine, neue linie, erweiterung, nova linka, rozsireni, nowa linia, nouvelle ligne, nuova linea, nueva linea',
    certificate:
      'certification, certified, zertifikat, zertifizierung, certifikat, certifikace, certyfikat, certificat, certificazione, certificacion, tanusitvany, certificaat',
    court:
      'insolvency, lawsuit, court case, legal, gericht, insolvenz, klage, soud, insolvence, rizeni, sad, upadlosc, tribunal, proces, tribunale, juicio, birosag, rechtbank',
    news: 'press, press release, announcement, other, nachricht, presse, pressemitteilung, zprava, aktualita, tiskova zprava, wiadomosc, aktualnosci, actualite, communique, notizia, noticia, hir, nieuws',
  }),
};

/** The value of a field of people, sites, deals or events that a word means in some language; undefined where none does. */
export function relatedValue(subject: string, field: string, word: string): string | undefined {
  const one = { sites: 'site kind', deals: 'deal kind', events: 'event kind' }[subject];
  return RELATED_WORDS[field === 'kind' ? (one ?? '') : field]?.(word);
}
