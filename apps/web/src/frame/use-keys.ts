import { useEffect } from 'react';

const editable = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    target.getAttribute('role') === 'combobox' ||
    target.closest('[role="dialog"], [role="menu"], [role="listbox"]') !== null);

/** Keys of the whole application, by the character they give. Nothing is caught while somebody types. */
export function useKeys(keys: Readonly<Record<string, (event: KeyboardEvent) => void>>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || editable(event.target)) return;
      const action = keys[event.key];
      if (!action) return;
      if (
        event.key === ' ' &&
        event.target instanceof HTMLElement &&
        event.target.closest('button, a, [role="button"], [role="slider"], [role="tab"]')
      )
        return;
      event.preventDefault();
      action(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);
}
