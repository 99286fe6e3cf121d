/** A number and what it counts: "1 piece was", "3 pieces were". */
export const soMany = (number: number, one: string, many: string): string =>
  `${number} ${number === 1 ? one : many}`
