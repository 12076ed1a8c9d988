/** Whether a key press belongs to a field and not to the page. */
export function inField(event: KeyboardEvent): boolean {
  const at = event.target as HTMLElement | null;
  return !!at && (at.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(at.tagName));
}
