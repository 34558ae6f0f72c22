/** Whether a key press belongs to a field that is being typed in, or to an open dialog. */
export function typing(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (!target) return false;
  if (target.closest('dialog[open]')) return true;
  if (target instanceof HTMLInputElement) return !/^(file|checkbox|radio|button)$/.test(target.type);
  return target.isContentEditable || /^(TEXTAREA|SELECT)$/.test(target.tagName);
}
