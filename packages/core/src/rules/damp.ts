/** Pressure at which air of a temperature is full of vapour, Pa (Magnus). */
export function saturation(celsius: number): number {
  return 610.94 * Math.exp((17.625 * celsius) / (celsius + 243.04));
}

/** The temperature at which air of this temperature and humidity (per cent) begins to dew, degrees Celsius (Magnus, turned round). */
export function dewPoint(celsius: number, humidity: number): number {
  const g = Math.log((humidity / 100) * (saturation(celsius) / 610.94));
  return (243.04 * g) / (17.625 - g);
}
