const RULES = new Intl.PluralRules('en');

/**
 * Fills the blanks of a text. A blank is a name, `{count}`; or a name with the word for one and the word for more,
 * `{count|sheet|sheets}`, between which `Intl.PluralRules` decides.
 * @param write the value of a name in words; undefined leaves the blank standing, so that it is noticed
 * @param count the number of a name, for the choice between one and more; what is no number counts as more
 */
export function fillText(
  text: string,
  write: (name: string) => string | undefined,
  count: (name: string) => unknown,
): string {
  return text.replace(
    /\{(\w+)(?:\|([^|{}]*)\|([^|{}]*))?\}/g,
    (blank, name: string, one: string | undefined, more: string | undefined) => {
      if (one === undefined || more === undefined) return write(name) ?? blank;
      const number = count(name);
      if (number === undefined) return blank;
      return typeof number === 'number' && RULES.select(number) === 'one' ? one : more;
    },
  );
}
