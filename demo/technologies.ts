/** Made-up products under generic categories. */
export const TECHNOLOGIES: readonly { category: string; label: string; products: readonly string[] }[] = [
  {
    category: 'production-planning',
    label: 'production planning',
    products: ['Rutavel', 'Planodor', 'Werkfluo', 'Taktovia'],
  },
  {
    category: 'paint-line-control',
    label: 'paint-line control',
    products: ['Dipzaal', 'Lakonta', 'Sprivolt'],
  },
  { category: 'accounting', label: 'accounting', products: ['Kontovar', 'Saldibra', 'Buchweil', 'Libretal'] },
  { category: 'web-shop', label: 'web shop', products: ['Korbiva', 'Vendulo', 'Tresenka'] },
  {
    category: 'customer-records',
    label: 'customer records',
    products: ['Kundavo', 'Relativo Desk', 'Notandra'],
  },
  {
    category: 'computer-aided-design',
    label: 'computer-aided design',
    products: ['Zirkalon', 'Formatine', 'Drahtwerk 3'],
  },
  { category: 'fleet-control', label: 'fleet control', products: ['Flottavia', 'Routenza'] },
  { category: 'access-control', label: 'access control', products: ['Portulox', 'Klinkora'] },
];
