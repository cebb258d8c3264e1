// Whether what is typed goes into a field.
export function typing(element) {
  return (
    element &&
    (element.matches("input:not([type=checkbox]):not([type=radio]), textarea, select") ||
      element.isContentEditable)
  );
}
