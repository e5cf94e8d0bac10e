/** Makes a text area as high as its text, where the browser does not do that by itself. */
export function grow(element: HTMLTextAreaElement): (() => void) | undefined {
  if (CSS.supports('field-sizing', 'content')) return undefined;
  const fit = () => {
    element.style.height = 'auto';
    element.style.height = `${element.scrollHeight}px`;
  };
  fit();
  element.addEventListener('input', fit);
  return () => element.removeEventListener('input', fit);
}
