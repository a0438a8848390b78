/** True where keys belong to what is being typed or chosen, not to the screen. */
export function isTextField(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.isContentEditable ||
    target.closest('input, textarea, select, [role="dialog"], [role="menu"], [role="listbox"]') !== null
  );
}
