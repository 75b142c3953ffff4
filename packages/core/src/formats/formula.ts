/** What a spreadsheet would take for a formula and work out: such a cell gets a quote in front. A negative number is none. */
export const FORMULA = /^[=+@\t\r]|^-(?!\d*[.,]?\d+$)/;
