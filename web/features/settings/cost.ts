/** What some seats cost by month and by year: "€270.00 a month, €3,240.00 a year". */
export function costWords(seats: number, centsPerMonth: number): string {
  const money = new Intl.NumberFormat('en-IE', { style: 'currency', currency: 'EUR' })
  const month = (seats * centsPerMonth) / 100
  return `${money.format(month)} a month, ${money.format(12 * month)} a year`
}
