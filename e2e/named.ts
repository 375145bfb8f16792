/**
 * What a screen reader would announce with a role and a name, in the page itself: asking the browser's accessibility
 * tree over and over costs more than the page does. `role` empty: anything of that name. Runs in the page, so that it
 * uses nothing outside of itself.
 */
export function findNamed(role: string, name: string): Element | null {
  const places: Readonly<Record<string, string>> = {
    button: 'button, [role="button"], input[type="submit"], input[type="button"]',
    link: 'a[href], [role="link"]',
    heading: 'h1, h2, h3, h4, [role="heading"]',
    textbox: 'input:not([type]), input[type="text"], textarea, [role="textbox"]',
    combobox: 'select, [role="combobox"]',
    checkbox: 'input[type="checkbox"], [role="checkbox"]',
    radio: 'input[type="radio"], [role="radio"]',
    gridcell: '[role="gridcell"]',
    option: 'option, [role="option"]',
    menuitem: '[role="menuitem"]',
    tab: '[role="tab"]',
    region: 'section, [role="region"]',
    navigation: 'nav, [role="navigation"]',
  };
  const isShown = (node: Element): boolean =>
    node.checkVisibility({ visibilityProperty: true }) && node.closest('[aria-hidden="true"], [inert]') === null;
  // Where one line ends and the next begins is a matter of looks: blanks do not count.
  const bare = (text: string): string => text.replace(/\s+/g, '');
  const said = (node: Node): string => {
    if (node.nodeType === Node.TEXT_NODE) return node.textContent ?? '';
    if (!(node instanceof Element) || node.getAttribute('aria-hidden') === 'true') return '';
    if (!node.checkVisibility({ visibilityProperty: true })) return '';
    return node.getAttribute('aria-label') ?? [...node.childNodes].map(said).join('');
  };
  const namesOf = function* (node: Element): Generator<string> {
    const label = node.getAttribute('aria-label');
    if (label !== null && label !== '') return yield label;
    const by = (node.getAttribute('aria-labelledby') ?? '')
      .split(' ')
      .flatMap((id) => document.getElementById(id) ?? [])
      .map(said)
      .join('');
    if (by !== '') return yield by;
    if (node instanceof HTMLInputElement || node instanceof HTMLTextAreaElement || node instanceof HTMLSelectElement) {
      const labels = [...(node.labels ?? [])].map(said).join('');
      if (labels !== '') return yield labels;
      return yield node.getAttribute('title') ?? node.getAttribute('placeholder') ?? '';
    }
    const text = [...node.childNodes].map(said).join('');
    yield bare(text) === '' ? (node.getAttribute('title') ?? '') : text;
  };
  const wanted = bare(name);
  const selector = role === '' ? [...Object.values(places), '[aria-label]', '[aria-labelledby]'].join() : places[role];
  for (const node of document.querySelectorAll(selector)) {
    const own = node.getAttribute('role');
    if (role !== '' && own !== null && own !== role) continue;
    for (const each of namesOf(node)) if (bare(each) === wanted && isShown(node)) return node;
  }
  return null;
}
