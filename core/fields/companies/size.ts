import type { Field } from '../field.ts';
import { column, DEPARTMENTS, files, history, money, words } from './making.ts';

/** How large a company is and how it grew. */
export const size: readonly Field[] = [
  {
    id: 'headcount',
    subject: 'companies',
    section: 'size',
    dated: 'year',
    kind: 'number',
    label: 'Headcount',
    unit: 'staff',
    meaning: 'People employed: an exact figure, a band (10-49) or an estimate with its range.',
    store: { at: 'range', stem: 'headcount' },
    openers: ['headcount', 'staff', 'employees'],
    column: { heading: 'Headcount', width: 94, numeric: true },
    files: [
      {
        id: 'headcount',
        label: 'Headcount',
        headings: words(
          'size range, werkzame personen, aantal werkzame personen, nr salariati, numar salariati, numar mediu salariati, numar angajati, emp total, emp here, mitarbeitende, anzahl mitarbeitende, betriebsgroesse, emp, emps, no emp, сотрудники, численность, количество сотрудников, персонал, εργαζόμενοι, αριθμός εργαζομένων, προσωπικό, співробітники, працівники, служители, брой служители, запослени, број запослених, headcount, employees, number of employees, staff, mitarbeiter, velkost organizacie, velikost organizace, velkostna kategoria, personeel, personeelsleden, effectif salarie, ma, anz ma, n trabalhadores, no trabalhadores, numero trabalhadores, henkilosto, henkilostomaara, henkiloston maara, calisan sayisi, tootajate arv, darbuotoju skaicius, darbinieku skaits, medarbeidere, antall ansatte, medarbetare, antal medarbejdere, mitarbeiterzahl, beschaftigte, pocet zamestnancu, zamestnanci, liczba pracownikow, zatrudnienie, effectif, effectifs, salaries, dipendenti, empleados, letszam, werknemers, ansatte, antal ansatte, anstallda, company size, size, employee count, no of employees, nr of employees, number of staff, total employees, employees total, workforce, employee range, employee band, size band, staff count, fte, anzahl mitarbeiter, zahl der mitarbeiter, anzahl beschaeftigte, mitarbeiteranzahl, belegschaft, zamestnanci, zamestnancu, pocet zamestnancov, pocet pracovniku, ilosc pracownikow, liczba zatrudnionych, wielkosc zatrudnienia, nombre de salaries, nombre d employes, tranche d effectif, tranche effectifs, numero dipendenti, addetti, numero addetti, numero de empleados, n empleados, plantilla, funcionarios, numero de trabalhadores, aantal werknemers, aantal medewerkers, letszam fo, foglalkoztatottak, antal anstallda, antall ansatte, henkilosto, henkilostomaara, numar angajati, angajati',
        ),
      },
      {
        id: 'headcount-year',
        label: 'Year of headcount',
        headings: words(
          'annee effectifs unite legale, annee effectifs, headcount year, year of headcount, employees year',
        ),
      },
      {
        id: 'headcount-from',
        label: 'Headcount from',
        headings: words(
          'headcount from, employees from, employees min, min employees, employees low, staff from, mitarbeiter von, mitarbeiter min, zamestnanci od, pracownicy od, effectif min',
        ),
      },
      {
        id: 'headcount-to',
        label: 'Headcount to',
        headings: words(
          'headcount to, employees to, employees max, max employees, employees high, staff to, mitarbeiter bis, mitarbeiter max, zamestnanci do, pracownicy do, effectif max',
        ),
      },
      { id: 'headcount-basis', label: 'Basis of headcount', headings: words('headcount basis') },
      {
        id: 'headcount-unknown',
        label: 'Why headcount is unknown',
        headings: words('headcount unknown because, headcount why'),
      },
    ],
  },
  {
    id: 'revenue',
    subject: 'companies',
    section: 'size',
    dated: 'year',
    kind: 'money',
    label: 'Revenue',
    meaning: 'Revenue of the latest year known, in its own currency; reported, banded or estimated.',
    store: { at: 'range', stem: 'revenue' },
    openers: ['revenue', 'turnover', 'sales'],
    column: { heading: 'Revenue', width: 112, numeric: true },
    files: [
      {
        id: 'revenue',
        label: 'Revenue',
        headings: words(
          'rev, revs, выручка, оборот, επωνυμία τζίρου, κύκλος εργασιών, τζίρος, виручка, дохід, приходи, нетни приходи, пословни приходи, revenue, turnover, sales, annual revenue, umsatz, umsatzgroesse, umsatzgroessenklasse, umsatzklasse, revenue range, revenue band, turnover band, tranche de chiffre d affaires, fascia di fatturato, jahresumsatz, obrat, trzby, przychody, przychod, obrot, chiffre d affaires, ca, fatturato, ricavi, facturacion, ingresos, arbevetel, omzet, omsaetning, omsattning, net sales, net turnover, total revenue, sales revenue, annual turnover, annual sales, revenues, erlose, umsatzerloese, nettoumsatz, trzby celkem, rocni obrat, cisty obrat, obrat celkem, przychody ze sprzedazy, przychody netto, ca ht, ca annuel, chiffre affaires, chiffre d affaire, fatturato annuo, volume d affari, ventas, facturacion anual, cifra de negocios, volume de negocios, netto arbevetel, jaaromzet, nettoomsattning, omsetning, liikevaihto, cifra de afaceri, cifra de negocio, importe neto cifra de negocios, volume de negocios, ciro, yillik ciro, ca net, tulu, muugitulu, kaive, apyvarta, prihodi, prihod, oborot',
        ),
      },
      {
        id: 'revenue-currency',
        label: 'Currency',
        headings: words(
          'currency, revenue currency, waehrung, wahrung, mena, waluta, devise, valuta, moneda, penznem',
        ),
      },
      {
        id: 'revenue-year',
        label: 'Year of revenue',
        headings: words(
          'revenue year, year, year of revenue, turnover year, jahr, rok, annee, anno, ano, ev, bokslutsar, tilikausi, geschaeftsjahr, esercizio, ejercicio, exercice, boekjaar, regnskabsar, regnskapsar, rok obrotowy, ucetni obdobi, uzleti ev, financial year, fiscal year',
        ),
      },
      {
        id: 'revenue-from',
        label: 'Revenue from',
        headings: words(
          'revenue from, turnover from, revenue min, min revenue, revenue low, umsatz von, umsatz min, obrat od',
        ),
      },
      {
        id: 'revenue-to',
        label: 'Revenue to',
        headings: words(
          'revenue to, turnover to, revenue max, max revenue, revenue high, umsatz bis, umsatz max, obrat do',
        ),
      },
      { id: 'revenue-basis', label: 'Basis of revenue', headings: words('revenue basis') },
      {
        id: 'revenue-unknown',
        label: 'Why revenue is unknown',
        headings: words('revenue unknown because, revenue why'),
      },
    ],
  },
  money('profit', 'Profit', 'Profit of the latest year known, a loss below zero.', [
    'profit, profits, net profit, annual profit, net income, net result, resultat, arets resultat, resultado, resultado neto, resultat net, resultado liquido, risultato, utile netto, wynik finansowy, nettoresultaat, winst, tulos, tilikauden tulos, profit net, adozott eredmeny, чистая прибыль, прибыль, κέρδη, gewinn, jahresueberschuss, zisk, zysk netto, zysk, resultat net, utile, beneficio',
    'profit currency',
    'profit year',
    'profit basis',
    'profit unknown because',
  ]),
  money('assets', 'Total assets', 'All that the balance sheet of the latest year known adds up to.', [
    'total assets, assets, balance sheet total, bilanzsumme, aktiva, bilancni suma, suma bilansowa, total actif, attivo, activo total',
    'assets currency',
    'assets year',
    'assets basis',
    'assets unknown because',
  ]),
  {
    id: 'revenue-per-head',
    subject: 'companies',
    section: 'size',
    dated: 'year',
    kind: 'money',
    label: 'Revenue per head',
    meaning:
      'Revenue over headcount. Rests on what both rest on: an estimate if either is one, a band if either is one.',
    store: { at: 'range', stem: 'per_head' },
    openers: ['revenue per head', 'per head'],
    column: { heading: 'Revenue per head', width: 120, numeric: true },
    files: [],
  },
  {
    id: 'rank',
    subject: 'companies',
    section: 'size',
    kind: 'rank',
    label: 'Rank',
    meaning:
      'Place among the companies of the same country or industry division by revenue or headcount, the largest first; equal ones share a place. Banded and unknown values have none.',
    store: { at: 'rank' },
    openers: ['largest'],
    column: null,
    files: [],
  },
  {
    id: 'growth',
    subject: 'companies',
    section: 'growth',
    kind: 'growth',
    label: 'Growth',
    meaning:
      'Change in percent over one or three years. Unknown where the earlier figure is zero or not there, or where one end is an estimate and the other is not.',
    store: { at: 'keyed', measure: 'growth', absent: null },
    openers: ['growth'],
    column: { heading: 'Growth, 1 year', width: 104, numeric: true, key: 'headcount 1y' },
    files: [],
  },
  history(
    'headcount-history',
    'Headcount by year',
    'People employed by calendar year; what is estimated is marked.',
    'headcount history, headcount by year, employees by year',
  ),
  history(
    'revenue-history',
    'Revenue by year',
    'Revenue by calendar year, in its own currency; what is estimated is marked.',
    'revenue history, revenue by year, turnover by year',
  ),
  history(
    'revenue-months',
    'Revenue by month',
    'Revenue of months on end, in its own currency, from the first one known.',
    'revenue months, revenue by month, monthly revenue',
  ),
  {
    id: 'departments',
    subject: 'companies',
    section: 'size',
    dated: 'checked',
    kind: 'keyed',
    label: 'Department',
    meaning:
      'Headcount by department. A department that is not named at a company whose departments are known has nobody.',
    unit: 'staff',
    store: { at: 'keyed', measure: 'departments', absent: 0 },
    openers: ['department'],
    column: { heading: 'Departments', width: 220, sortable: false },
    values: DEPARTMENTS.map((key) => ({ key, label: key })),
    files: files('departments', 'Headcount by department', 'departments, staff by department'),
  },
  {
    id: 'founded',
    subject: 'companies',
    section: 'growth',
    dated: 'checked',
    kind: 'number',
    label: 'Founded',
    meaning: 'Calendar year of founding.',
    store: column('founded'),
    openers: ['founded'],
    column: { heading: 'Founded', width: 88, numeric: true },
    files: [
      {
        id: 'founded',
        label: 'Founded',
        headings: words(
          'startdato, formation date, date of formation, ettevotja esmakande kpv, registered, registered on, date registered, ano constitucion, ano de constitucion, fecha constitucion, fecha de constitucion, registreringsar, opgericht, oprichtingsdatum, oprichting, yr start, year start, start year, yr established, data zalozenia, rok zalozenia firmy, date creation unite legale, date creation, founded, founding year, year founded, kurulus yili, asutamisaasta, ikurimo metai, dibinasanas gads, perustamisvuosi, perustettu, grundlagt, stiftelsesdato, registreringsdatum, established, gegruendet, gruendungsjahr, zalozeno, rok zalozeni, rok zalozenia, annee de creation, fondata, fundada, alapitas, established, year established, est, incorporated, incorporation date, date of incorporation, incorporation year, inception, grundung, gegrundet, gegruendet, jahr der gruendung, gruendungsdatum, vznik, datum vzniku, datum zalozeni, zalozeno, zalozena, rok zalozenia, datum zalozenia, data zalozenia, rok powstania, date de creation, annee de creation, creee en, anno fondazione, anno di fondazione, data costituzione, fecha de constitucion, ano de fundacion, data de constituicao, alapitas, alapitas eve, oprichting, oprichtingsdatum, oprichtingsjaar, stiftet, etableret, grundad, bildad, perustettu, an infiintare, data infiintarii',
        ),
      },
    ],
  },
  {
    id: 'age',
    subject: 'companies',
    section: 'growth',
    dated: 'checked',
    kind: 'number',
    label: 'Age',
    meaning: 'Calendar years since the year of founding, at the as-of date.',
    unit: 'years',
    store: column('founded'),
    yearsSince: 'founded',
    openers: ['age'],
    column: { heading: 'Age', width: 64, numeric: true },
    files: [],
  },
];
