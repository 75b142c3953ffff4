/** Lengths, angles, money and messages in words. */
export { formatAngle, parseAngle, riseOver } from './angle.js';
export { EN } from './en.js';
export { fillText } from './fill.js';
export {
  formatEntry,
  formatLength,
  formatLengthWithUnit,
  formatSawn,
  groupDigits,
  type LengthStyle,
  parseLength,
} from './length.js';
export { message, type Message } from './message.js';
export { formatMoney, PLAIN_VOICE, say } from './say.js';
